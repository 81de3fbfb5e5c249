/** Shift and a drag over the empty sheet draw a frame; the blocks inside are chosen. */
import type * as Blockly from 'blockly/core';

export function marquee(ws: Blockly.WorkspaceSvg, host: HTMLElement, choose: (ids: string[]) => void): () => void {
  let from: { x: number; y: number } | undefined;
  let frame: HTMLElement | undefined;
  const down = (e: PointerEvent): void => {
    const empty =
      (e.target as Element).closest('.blocklyMainBackground, .blocklySvg') &&
      !(e.target as Element).closest('[data-id]');
    if (!e.shiftKey || e.button !== 0 || !empty) return;
    e.preventDefault();
    e.stopPropagation();
    from = { x: e.clientX, y: e.clientY };
    frame = document.createElement('div');
    frame.className = 'mb-marquee';
    document.body.append(frame);
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up, { once: true });
    move(e);
  };
  const box = (e: PointerEvent) => ({
    left: Math.min(from!.x, e.clientX),
    top: Math.min(from!.y, e.clientY),
    right: Math.max(from!.x, e.clientX),
    bottom: Math.max(from!.y, e.clientY)
  });
  const move = (e: PointerEvent): void => {
    const b = box(e);
    Object.assign(frame!.style, {
      left: `${b.left}px`,
      top: `${b.top}px`,
      width: `${b.right - b.left}px`,
      height: `${b.bottom - b.top}px`
    });
  };
  const up = (e: PointerEvent): void => {
    window.removeEventListener('pointermove', move);
    const b = box(e);
    frame?.remove();
    from = undefined;
    const ids = ws
      .getAllBlocks(true)
      .filter((block) => {
        if (block.isShadow() || block.outputConnection) return false;
        const path = block.getSvgRoot().querySelector(':scope > .blocklyPath')!.getBoundingClientRect();
        // a wrap is chosen by its head: its body may reach far
        const head = Math.min(path.height, 34);
        return path.left < b.right && path.right > b.left && path.top < b.bottom && path.top + head > b.top;
      })
      .map((block) => block.id);
    choose(ids);
  };
  host.addEventListener('pointerdown', down, true);
  return () => {
    host.removeEventListener('pointerdown', down, true);
    window.removeEventListener('pointermove', move);
    frame?.remove();
  };
}
