import { render, waitFor } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { useRouteTold } from "./useRouteTold";

function Page({ page, heading }: { page: string; heading: string | null }) {
  useRouteTold(page);
  return (
    <div id="page" tabIndex={-1}>
      {heading && <h1>{heading}</h1>}
    </div>
  );
}

describe("a page that was gone to", () => {
  it("is named in the window as soon as its heading is there, and has the focus", async () => {
    const { rerender } = render(<Page page="/jobs" heading="Jobs" />);
    await waitFor(() => expect(document.title).toBe("Jobs – Worthy Twin"));
    expect(document.activeElement).toBe(document.body);
    rerender(<Page page="/depot" heading={null} />);
    expect(document.activeElement?.id).toBe("page");
    rerender(<Page page="/depot" heading="Tidegate depot" />);
    await waitFor(() => expect(document.title).toBe("Tidegate depot – Worthy Twin"));
  });
});
