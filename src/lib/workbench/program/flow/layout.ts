/** Places of a flow chart's symbols and arrows, worked out by ELK; loaded when the flow is first looked at. */
import type { ELK, ElkExtendedEdge, ElkNode } from 'elkjs/lib/elk-api';
import type { Flow, FlowNode } from '../../../../../core/language/outline.ts';

export type Placed = {
  flow: Flow;
  width: number;
  height: number;
  nodes: (FlowNode & { x: number; y: number; width: number; height: number; lines: string[] })[];
  edges: { path: string; label?: { text: string; x: number; y: number }; from: string; to: string }[];
};

const CHAR = 6.9;
const LINE = 17;
/** Words in lines of at most so many characters. */
export function wrapped(text: string, most: number): string[] {
  const lines: string[] = [];
  for (const part of text.split('\n')) {
    let line = '';
    for (const word of part.split(/\s+/)) {
      if (line && (line + ' ' + word).length > most) {
        lines.push(line);
        line = word;
      } else line = line ? `${line} ${word}` : word;
    }
    lines.push(line);
  }
  return lines;
}
/** How large a symbol is around its words; a diamond needs twice the room. */
export function sized(node: FlowNode): { width: number; height: number; lines: string[] } {
  if (node.kind === 'junction') return { width: 12, height: 12, lines: [] };
  const lines = wrapped(node.text, node.kind === 'decision' ? 20 : 32);
  const width = Math.max(...lines.map((l) => l.length)) * CHAR;
  const height = lines.length * LINE;
  if (node.kind === 'decision')
    return { width: Math.max(110, width * 1.35 + 44), height: Math.max(58, height * 1.5 + 34), lines };
  if (node.kind === 'table') return { width: width + 36, height: height + 18, lines };
  return { width: Math.max(76, width + 30), height: height + 16, lines };
}

/** The corners of a diamond, where its lines begin and end. */
const cornersOf = (id: string, width: number, height: number): Pick<ElkNode, 'ports' | 'layoutOptions'> => ({
  ports: (
    [
      ['north', width / 2, 0],
      ['south', width / 2, height],
      ['east', width, height / 2],
      ['west', 0, height / 2]
    ] as const
  ).map(([side, x, y]) => ({
    id: `${id}.${side}`,
    x,
    y,
    width: 0,
    height: 0,
    layoutOptions: { 'elk.port.side': side.toUpperCase() }
  })),
  layoutOptions: { 'elk.portConstraints': 'FIXED_POS' }
});

let elk: Promise<ELK> | undefined;
const loaded = (): Promise<ELK> =>
  (elk ??= import('elkjs/lib/elk.bundled.js').then(({ default: Elk }) => new Elk() as unknown as ELK));

export async function layout(flow: Flow): Promise<Placed> {
  const sizes = new Map(flow.nodes.map((n) => [n.id, sized(n)]));
  const decisions = new Set(flow.nodes.filter((n) => n.kind === 'decision').map((n) => n.id));
  const order = new Map(flow.nodes.map((n, i) => [n.id, i]));
  // the first way out of a decision leaves below, the other one to the right; what comes back comes in at the left
  const cornerOut = (e: Flow['edges'][number]): string | undefined =>
    decisions.has(e.from)
      ? `${e.from}.${flow.edges.find((o) => o.from === e.from) === e ? 'south' : 'east'}`
      : undefined;
  const graph: ElkNode = {
    id: 'root',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': 'DOWN',
      'elk.edgeRouting': 'ORTHOGONAL',
      'elk.spacing.nodeNode': '26',
      'elk.layered.spacing.nodeNodeBetweenLayers': '34',
      'elk.layered.nodePlacement.strategy': 'BRANDES_KOEPF',
      'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
      'elk.layered.cycleBreaking.strategy': 'MODEL_ORDER'
    },
    children: flow.nodes.map((n) => {
      const { width, height } = sizes.get(n.id)!;
      return { id: n.id, width, height, ...(n.kind === 'decision' ? cornersOf(n.id, width, height) : {}) };
    }),
    edges: flow.edges.map((e, i): ElkExtendedEdge => ({
      id: `e${i}`,
      sources: [cornerOut(e) ?? e.from],
      targets: [decisions.has(e.to) ? `${e.to}.${order.get(e.from)! > order.get(e.to)! ? 'west' : 'north'}` : e.to],
      ...(e.label ? { labels: [{ id: `l${i}`, text: e.label, width: e.label.length * CHAR + 8, height: 15 }] } : {})
    }))
  };
  const placed = await (await loaded()).layout(graph);
  const at = new Map(placed.children!.map((c) => [c.id, c]));
  return {
    flow,
    width: placed.width ?? 0,
    height: placed.height ?? 0,
    nodes: flow.nodes.map((n) => {
      const { x = 0, y = 0 } = at.get(n.id)!;
      return { ...n, ...sizes.get(n.id)!, x, y };
    }),
    edges: (placed.edges as ElkExtendedEdge[]).map((e, i) => {
      const [section] = e.sections ?? [];
      const points = section ? [section.startPoint, ...(section.bendPoints ?? []), section.endPoint] : [];
      const label = e.labels?.[0];
      return {
        path: points.map((p, k) => `${k ? 'L' : 'M'}${p.x.toFixed(1)},${p.y.toFixed(1)}`).join(''),
        ...(label ? { label: { text: label.text ?? '', x: (label.x ?? 0) + 4, y: (label.y ?? 0) + 11 } } : {}),
        from: flow.edges[i].from,
        to: flow.edges[i].to
      };
    })
  };
}
