/** The one of these that a text is; `otherwise` where it is none of them. */
export function oneOf<T extends string>(value: unknown, choices: readonly T[], otherwise: T): T {
  return choices.find((each) => each === value) ?? otherwise;
}
