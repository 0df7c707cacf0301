import { describe, expect, it } from "vitest";
import { maskOf, wireColours } from "./colours";

describe("the colour of a wire", () => {
  it("is known by its name and by the letters of IEC 60757", () => {
    // IEC 60757:1983, table of letter codes
    const published = {
      BK: "black",
      BN: "brown",
      RD: "red",
      OG: "orange",
      YE: "yellow",
      GN: "green",
      BU: "blue",
      VT: "violet",
      GY: "grey",
      WH: "white",
      PK: "pink",
      TQ: "turquoise",
    };
    for (const [code, name] of Object.entries(published)) {
      expect(wireColours(code), code).toHaveLength(1);
      expect(wireColours(code), code).toEqual(wireColours(name));
    }
    expect(wireColours("GNYE")).toEqual([...wireColours("green"), ...wireColours("yellow")]);
  });

  it("may be two, however they are written", () => {
    const both = [...wireColours("GN"), ...wireColours("YE")];
    for (const written of ["green/yellow", "Green Yellow", "green with yellow", "gn/ye", "GN-YE"])
      expect(wireColours(written), written).toEqual(both);
  });

  it("is none where the words name none", () => {
    for (const words of ["", "striped", "xx", "no. 14"]) expect(wireColours(words), words).toEqual([]);
  });
});

describe("the colour of a board", () => {
  it("is the mask’s, or none where nobody said", () => {
    expect(maskOf("Green")).toBeTruthy();
    expect(maskOf(undefined)).toBeUndefined();
    expect(maskOf("tartan")).toBeUndefined();
  });
});
