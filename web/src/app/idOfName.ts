/** The id a thing of the shop gets from the name it is given first: small letters, figures and hyphens, at most 60. Empty where nothing of the name can stand in one. */
export function idOfName(name: string): string {
  return name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 60);
}
