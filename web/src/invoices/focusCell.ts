/** The cursor goes there, and what stands in a number's cell is typed over, as in a grid. */
export function focusCell(place: number, column: string) {
  const cell = document.querySelector<HTMLElement>(`[data-cell="${place}-${column}"]`);
  cell?.focus();
  if (cell instanceof HTMLInputElement) cell.select();
}
