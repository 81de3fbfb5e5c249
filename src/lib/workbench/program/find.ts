/** The id of the block that an element of the block editor belongs to; literals belong to the block around them. */
export function findBlock(element: Element | null): string | undefined {
  let at = element?.closest('[data-id]');
  while (at && at.classList.contains('blocklyShadow')) at = at.parentElement?.closest('[data-id]');
  return at?.getAttribute('data-id') ?? undefined;
}
