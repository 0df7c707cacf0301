import { fireEvent, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { jobSheet } from "@/testing/jobs";
import { renderAsking } from "@/testing/queries";
import { CodesToRead } from "./CodesToRead";

const code = (plate: string | null, fact = "serial") => ({
  element: "SN",
  title: "Serial number",
  fact,
  places: 6,
  plate,
});

function type(text: string, codes: ReturnType<typeof code>[]) {
  const put = vi.fn();
  renderAsking(<CodesToRead job={jobSheet({})} put={put} codes={codes} />);
  const field = screen.getByLabelText("Serial number, as the plate has it");
  fireEvent.change(field, { target: { value: text } });
  fireEvent.blur(field);
  return put;
}

it("keeps the serial number as it stands on the plate", () => {
  expect(type(" 482 913 ", [code(null)])).toHaveBeenCalledWith({
    target: "serial",
    after: "482 913",
    reason: "stands so on the plate",
  });
});

it("keeps any other fact of the plate as that fact", () => {
  expect(type("44A", [code(null, "model")])).toHaveBeenCalledWith({
    target: "fact.model",
    after: { value: "44A", source: "plate" },
  });
});

it("says of what does not fit the places that it does not, and keeps nothing that is empty", () => {
  const put = type("", [code("48")]);
  expect(screen.getByText(/do not fit 48/)).toBeTruthy();
  expect(put).not.toHaveBeenCalled();
});
