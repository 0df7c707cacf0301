/** Cells as they come from a clipboard or a file: rows of texts. */

/** The rows of a table that was copied: tabs between cells, or else semicolons or commas as spreadsheets write files. */
export function cellsOf(text: string): string[][] {
  const lines = text.replace(/\r\n?/g, "\n").replace(/\n+$/, "");
  const between = lines.includes("\t") ? "\t" : lines.split("\n")[0]?.includes(";") ? ";" : ",";
  return split(lines, between);
}

/** What was pasted into one cell: more than one cell only where the clipboard says so by tabs or lines. */
export function pastedCells(text: string): string[][] {
  const lines = text.replace(/\r\n?/g, "\n").replace(/\n+$/, "");
  return lines.includes("\t") || lines.includes("\n") ? split(lines, "\t") : [[lines]];
}

function split(text: string, between: string): string[][] {
  const rows: string[][] = [[]];
  let cell = "";
  let quoted = false;
  for (let at = 0; at < text.length; at++) {
    const mark = text.charAt(at);
    if (quoted) {
      if (mark !== '"') cell += mark;
      else if (text.charAt(at + 1) === '"') cell += text.charAt(++at);
      else quoted = false;
    } else if (mark === '"' && cell === "") quoted = true;
    else if (mark === between || mark === "\n") {
      rows.at(-1)?.push(cell.trim());
      cell = "";
      if (mark === "\n") rows.push([]);
    } else cell += mark;
  }
  rows.at(-1)?.push(cell.trim());
  return rows;
}

/** Rows with pasted cells laid over them from one cell on; rows are added where they are needed, columns are not. */
export function laidOver(
  rows: string[][],
  pasted: string[][],
  row: number,
  column: number,
  width: number,
  grows: boolean,
) {
  const result = rows.map((each) => [...each]);
  pasted.forEach((cells, down) => {
    if (row + down >= result.length) {
      if (!grows) return;
      result.push(Array<string>(width).fill(""));
    }
    const into = result[row + down];
    cells.forEach((cell, along) => {
      if (into && column + along < width) into[column + along] = cell;
    });
  });
  return result;
}
