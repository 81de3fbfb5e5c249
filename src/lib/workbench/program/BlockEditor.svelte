<script lang="ts" module>
  import { KeyboardNavigation } from '@blockly/keyboard-navigation';

  // once a page: the block library refuses styles that come twice
  KeyboardNavigation.registerKeyboardNavigationStyles();
</script>

<script lang="ts">
  import * as Blockly from 'blockly/core';
  import * as En from 'blockly/msg/en';
  import { onMount } from 'svelte';
  import { findBlock } from './find.ts';
  import { newStep, catalogue } from '../../../../core/language/catalogue.ts';
  import { addRoutine, addVariable, noteOn, parkStack, reshapeIf } from '../../../../core/language/edit.ts';
  import { allIds, freshId, type Program } from '../../../../core/language/program.ts';
  import NameDialog from '../../ui/NameDialog.svelte';
  import { useWorkbench } from '../workbench.svelte.ts';
  import { around, defineBlocks, LooseDropdown } from './blockly/blocks.ts';
  import { bringIn, readWorkspace, stateOf, tagsOf } from './blockly/convert.ts';
  import { registerMenu, type MenuActions } from './blockly/menu.ts';
  import { THEMES } from './blockly/renderer.ts';
  import { TrayArea } from './blockly/tray-area.ts';

  const w = useWorkbench();
  const { session, runs } = w;
  let host: HTMLDivElement;
  let ws: Blockly.WorkspaceSvg | undefined;
  /** the program that the workspace shows */
  let shown: Program = { stacks: [], routines: [], variables: [], loose: [] };
  let names: NameDialog;

  function dark(): boolean {
    return document.documentElement.classList.contains('dark');
  }
  /** After a gesture: what the workspace shows becomes the program. */
  function settle(label: string) {
    if (!ws || handing || ws.isDragging()) return;
    const program = readWorkspace(ws, session.project.program);
    if (JSON.stringify(program) === JSON.stringify(session.project.program)) return;
    shown = program;
    session.program(label, program);
  }
  /** a card is on its way in: until it is dropped this is one gesture */
  let handing = false;
  const LABELS: Record<string, string> = {
    [Blockly.Events.BLOCK_MOVE]: 'move blocks',
    [Blockly.Events.BLOCK_CREATE]: 'add a block',
    [Blockly.Events.BLOCK_DELETE]: 'take a block out',
    [Blockly.Events.BLOCK_CHANGE]: 'change a value'
  };
  let due: ReturnType<typeof setTimeout> | undefined;
  let label = '';
  function listen(event: Blockly.Events.Abstract) {
    if (event.type === Blockly.Events.SELECTED) {
      const id = (event as Blockly.Events.Selected).newElementId;
      const block = id ? ws?.getBlockById(id) : null;
      // the chosen block stays chosen while the tray or another panel is used
      if (block) w.selected = block.isShadow() ? block.getParent()?.id : block.id;
      else if (host.contains(document.activeElement)) w.selected = undefined;
    }
    if (
      event.isUiEvent ||
      event.type === Blockly.Events.BLOCK_FIELD_INTERMEDIATE_CHANGE ||
      event.type === Blockly.Events.FINISHED_LOADING
    )
      return;
    label = LABELS[event.type] ?? 'change the program';
    clearTimeout(due);
    due = setTimeout(() => settle(label), 0);
  }
  function edit(what: string, change: (p: Program) => Program) {
    session.program(what, change(session.project.program));
  }
  const actions: MenuActions = {
    park: (block, parked) => {
      const root = block.getRootBlock();
      const stack = session.project.program.stacks.find((s) => s.steps[0]?.id === root.id);
      if (stack) edit(parked ? 'park a stack' : 'take a stack out of the park', (p) => parkStack(p, stack.id, parked));
    },
    reshape: (block, change) => edit('change an if', (p) => reshapeIf(p, block.id, change)),
    note: async (block) => {
      const text = await names.ask('A note on this block', 'note', tagsOf(block).note ?? '');
      if (text === undefined) return;
      if (block.type === 'routine.define')
        edit('note on a routine', (p) => ({
          ...p,
          routines: p.routines.map((r) => (r.id === block.id ? { ...r, note: text || undefined } : r))
        }));
      else edit('note on a block', (p) => noteOn(p, block.id, text));
    }
  };
  around.make = async (what) => {
    const name = await names.ask(`What shall the new ${what} be called?`, what);
    if (!name) return undefined;
    if (what === 'variable') {
      const { program, variable } = addVariable(session.project.program, name);
      around.program = program;
      session.program(`new variable ${name}`, program);
      return variable.id;
    }
    const { program, routine } = addRoutine(session.project.program, name, 40, 420);
    session.program(`new routine ${name}`, program);
    return routine.id;
  };

  onMount(() => {
    Blockly.setLocale(En as unknown as Record<string, string>);
    defineBlocks();
    registerMenu(actions);
    around.program = session.project.program;
    around.kit = session.project.kit;
    ws = Blockly.inject(host, {
      renderer: 'mossbell',
      theme: dark() ? THEMES.dark : THEMES.light,
      media: '/blockly/',
      trashcan: false,
      sounds: false,
      comments: false,
      disable: true,
      grid: { spacing: 24, length: 2, colour: dark() ? '#37423b' : '#d8d9c8', snap: false },
      move: { scrollbars: true, drag: true, wheel: true },
      zoom: { controls: false, wheel: false, pinch: true, startScale: 1, maxScale: 2, minScale: 0.4 }
    });
    const keyboard = new KeyboardNavigation(ws);
    // history is ours: values of the project, on every page
    ws.MAX_UNDO = 0;
    ws.addChangeListener(listen);
    bringIn(ws, shown, session.project.program);
    shown = session.project.program;
    document.querySelectorAll('.blocklyComputeCanvas').forEach((e) => e.setAttribute('aria-hidden', 'true'));
    requestAnimationFrame(() => (host.dataset.ready = '1'));
    const theme = () => ws?.setTheme(dark() ? THEMES.dark : THEMES.light);
    window.addEventListener('mossbell:theme', theme);
    const resize = new ResizeObserver(() => ws && Blockly.svgResize(ws));
    resize.observe(host);
    Object.assign(window, { mossbellWorkspace: ws });
    return () => {
      clearTimeout(due);
      settle(label || 'change the program');
      resize.disconnect();
      window.removeEventListener('mossbell:theme', theme);
      keyboard.dispose();
      ws?.dispose();
      ws = undefined;
    };
  });

  // the program changed elsewhere: undo, a mend, the kit sheet
  $effect(() => {
    const { program, kit } = session.project;
    around.program = program;
    const kitChanged = around.kit !== kit;
    around.kit = kit;
    if (!ws) return;
    if (program !== shown) {
      const now = readWorkspace(ws, shown);
      bringIn(ws, now, program);
      shown = program;
    }
    if (kitChanged || program.variables || program.routines) refreshNames();
    mark();
  });
  /** Names in lists follow kit, variables and routines. */
  function refreshNames() {
    Blockly.Events.disable();
    for (const block of ws!.getAllBlocks(false))
      for (const field of block.getFields()) if (field instanceof LooseDropdown) field.refresh();
    Blockly.Events.enable();
  }
  // remarks: a small clay dot at the right
  function mark() {
    if (!ws) return;
    host.querySelectorAll('.mb-remark').forEach((e) => e.remove());
    const flagged = new Set(w.toCheck.flatMap((r) => r.blocks));
    const { program } = session.project;
    for (const block of ws.getAllBlocks(false)) {
      const root = block.getSvgRoot();
      if (flagged.has(block.id)) {
        const dot = document.createElementNS('http://www.w3.org/2000/svg', 'circle');
        dot.setAttribute('class', 'mb-remark');
        dot.setAttribute('r', '4.5');
        dot.setAttribute('cx', String(block.width - 5));
        dot.setAttribute('cy', '5');
        root.append(dot);
      }
      root.querySelectorAll(':scope > .mb-note').forEach((e) => e.remove());
      const { note } = tagsOf(block);
      if (note) {
        // a small folded page at the right end, its words in the tooltip
        const page = document.createElementNS('http://www.w3.org/2000/svg', 'path');
        page.setAttribute('class', 'mb-note');
        page.setAttribute('d', 'M0 0H8L12 4V14H0ZM8 0V4H12M3 7H9M3 10H9');
        page.setAttribute('transform', `translate(${block.width + 6} 8)`);
        root.append(page);
        block.setTooltip(`Note: ${note}`);
      }
      const top = block.getRootBlock();
      root.classList.toggle(
        'mb-parked',
        block === top && program.stacks.some((s) => s.parked && s.steps[0]?.id === top.id)
      );
      root.classList.toggle(
        'mb-loose',
        block === top &&
          !block.isShadow() &&
          !program.stacks.some((s) => s.parked && s.steps[0]?.id === top.id) &&
          block.type !== 'routine.define' &&
          catalogue.get(block.type)?.shape !== 'starter'
      );
      root.classList.toggle('mb-off', block.hasDisabledReason('off'));
    }
  }
  $effect(() => {
    void w.remarks;
    requestAnimationFrame(mark);
  });

  // what runs now, and what is pointed at elsewhere
  let litNow: string[] = [];
  $effect(() => {
    const lit = runs.lit;
    for (const id of litNow) if (!lit.includes(id)) ws?.getBlockById(id)?.getSvgRoot().classList.remove('mb-running');
    for (const id of lit) ws?.getBlockById(id)?.getSvgRoot().classList.add('mb-running');
    litNow = lit;
  });
  const failed = $derived(
    runs.run && runs.run.version >= 0 ? runs.run.trace.events.find((e) => e.type === 'error')?.block : undefined
  );
  let failedNow: string | undefined;
  $effect(() => {
    if (failedNow) ws?.getBlockById(failedNow)?.getSvgRoot().classList.remove('mb-failed');
    failedNow = failed;
    if (failed) ws?.getBlockById(failed)?.getSvgRoot().classList.add('mb-failed');
  });
  let pointedNow: string | undefined;
  $effect(() => {
    const id = w.pointed;
    if (pointedNow) ws?.getBlockById(pointedNow)?.getSvgRoot().classList.remove('mb-pointed');
    if (id) ws?.getBlockById(id)?.getSvgRoot().classList.add('mb-pointed');
    pointedNow = id;
  });
  $effect(() => {
    const id = w.selected;
    const block = id ? ws?.getBlockById(id) : null;
    if (block && Blockly.getSelected() !== block && !host.contains(document.activeElement)) {
      (Blockly.getSelected() as Blockly.BlockSvg | null)?.unselect?.();
      block.select();
      const view = ws!.getMetricsManager().getViewMetrics(true);
      const { x, y } = block.getRelativeToSurfaceXY();
      if (x < view.left || y < view.top || x > view.left + view.width - 60 || y > view.top + view.height - 30)
        ws!.centerOnBlock(id!);
    }
  });
  function hover(event: PointerEvent) {
    const id = findBlock(event.target as Element);
    if (id !== w.pointed) w.pointed = id;
  }

  /** A card from the tray was dragged: the block appears under the pointer and the drag is handed over. */
  export function dragIn(kind: string, event: PointerEvent) {
    if (!ws) return;
    const scale = ws.scale;
    const at = Blockly.utils.svgMath.screenToWsCoordinates(
      ws,
      new Blockly.utils.Coordinate(event.clientX - 14 * scale, event.clientY - 14 * scale)
    );
    handing = true;
    const dropped = () => {
      window.removeEventListener('pointerup', dropped, true);
      window.removeEventListener('pointercancel', dropped, true);
      setTimeout(() => {
        handing = false;
        settle('add a block');
      }, 0);
    };
    window.addEventListener('pointerup', dropped, true);
    window.addEventListener('pointercancel', dropped, true);
    // the sheet must not move under the hand: the drag switches this on again when it ends
    ws.setResizesEnabled(false);
    Blockly.Events.setGroup(true);
    const block = create(kind, at.x, at.y);
    Blockly.Events.setGroup(false);
    if (!block) return;
    block.getSvgRoot().dispatchEvent(
      new PointerEvent('pointerdown', {
        bubbles: true,
        clientX: event.clientX,
        clientY: event.clientY,
        pointerId: event.pointerId,
        pointerType: event.pointerType,
        button: 0,
        buttons: 1,
        isPrimary: true
      })
    );
  }
  function create(kind: string, x: number, y: number): Blockly.BlockSvg | undefined {
    const { program } = session.project;
    const ids = allIds(program);
    for (const b of ws!.getAllBlocks(false)) ids.add(b.id);
    if (kind === 'routine.define') {
      const name = `routine ${program.routines.length + 1}`;
      return Blockly.serialization.blocks.append(
        { type: kind, id: freshId(ids, 'r'), fields: { NAME: name }, x, y },
        ws!
      ) as Blockly.BlockSvg;
    }
    return Blockly.serialization.blocks.append(
      { ...stateOf(newStep(kind, freshId(ids), program)), x, y },
      ws!
    ) as Blockly.BlockSvg;
  }
  /** A card was activated by key or click: below the chosen block if it fits there, otherwise in a free place. */
  export function add(kind: string) {
    if (!ws) return;
    const chosen = w.selected ? ws.getBlockById(w.selected) : null;
    const { y } = ws.getBlocksBoundingBox().getHeight() ? { y: ws.getBlocksBoundingBox().bottom + 24 } : { y: 24 };
    Blockly.Events.setGroup(true);
    const block = create(kind, 24, y);
    if (block && chosen && !chosen.isShadow()) {
      if (block.outputConnection) {
        const free = chosen.inputList.find(
          (i) =>
            i.type === Blockly.inputs.inputTypes.VALUE &&
            (!i.connection!.targetBlock() || i.connection!.targetBlock()!.isShadow()) &&
            ws!.connectionChecker.canConnect(block.outputConnection, i.connection, false)
        );
        free?.connection!.connect(block.outputConnection);
      } else if (block.previousConnection) {
        const inner = chosen.inputList.find(
          (i) => i.type === Blockly.inputs.inputTypes.STATEMENT && !i.connection!.targetBlock()
        );
        const below = inner?.connection ?? chosen.nextConnection;
        if (below) below.connect(block.previousConnection);
      }
    }
    Blockly.Events.setGroup(false);
    if (block) {
      (Blockly.getSelected() as Blockly.BlockSvg | null)?.unselect?.();
      block.select();
      w.selected = block.id;
    }
  }
  export function zoom(by: number) {
    if (by === 0) ws?.zoomToFit();
    else ws?.zoomCenter(by);
  }
  export function tidy() {
    ws?.cleanUp();
  }
  /** Where a block dropped means to take it out. */
  export function trayArea(area: () => DOMRect) {
    if (!ws) return;
    ws.getComponentManager().addComponent({
      component: new TrayArea(area),
      weight: 1,
      capabilities: [Blockly.ComponentManager.Capability.DELETE_AREA, Blockly.ComponentManager.Capability.DRAG_TARGET]
    });
    ws.recordDragTargets();
  }
</script>

<div
  bind:this={host}
  class="mb-editor h-full w-full"
  role="presentation"
  onpointermove={hover}
  onpointerleave={() => (w.pointed = undefined)}
  data-testid="blocks"
></div>
<NameDialog bind:this={names} />
