/** The tray as a place to drop blocks that shall go; it shows that it will take them out. */
import * as Blockly from 'blockly/core';

const SHOWS = 'mb-taking-out';
const show = (on: boolean): void => void document.documentElement.classList.toggle(SHOWS, on);

export class TrayArea extends Blockly.DeleteArea {
  override id = 'tray';
  constructor(private readonly area: () => DOMRect) {
    super();
  }
  override getClientRect(): Blockly.utils.Rect {
    const { top, bottom, left, right } = this.area();
    return new Blockly.utils.Rect(top, bottom, left, right);
  }
  override onDragEnter(): void {
    show(true);
  }
  override onDragExit(): void {
    show(false);
  }
  override onDrop(): void {
    show(false);
  }
}
