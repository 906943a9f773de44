import { BOARD_STYLES, MOST_HOLES, type Board } from '@zemble/contract';
import { checkBoard, proposeBoard, resolveLayer, type BoardReport, type LayerCircuit } from '@zemble/core';
import { loadUnit } from '../file.ts';
import { NoAnswer } from '../no-answer.ts';
import { UsageError, type Options } from '../options.ts';

const USUAL_SECONDS = 20;

/**
 * `board FILE [--board ID]`: what is wrong with a board beside the circuit of a layer, planned unless it is named.
 * `--propose --columns N --rows M [--style pads] [--seed 1]`: a board that passes.
 */
export async function board(options: Options): Promise<unknown> {
  const unit = await loadUnit(options);
  const layer = options.text('layer') === undefined ? 'planned' : options.layer();
  const circuit = resolveLayer(unit.circuit, layer);
  const wires = unit.wires ?? [];
  if (options.flag('propose')) return propose(options, circuit, wires);
  const found = boardNamed(unit.boards ?? [], options.text('board'));
  return reportOf(checkBoard(circuit, found, wires));
}

const reportOf = ({ ok, problems, nets }: BoardReport) => ({ ok, problems, nets: Object.fromEntries(nets) });

function boardNamed(boards: readonly Board[], id: string | undefined): Board {
  const [first] = boards;
  if (!first) throw new UsageError('The file has no board; --propose --columns 24 --rows 12 makes one.');
  const named = boards.map((b) => b.id).join(', ');
  if (id === undefined) {
    if (boards.length > 1)
      throw new UsageError(`The file has several boards; name one with --board: ${named}.`);
    return first;
  }
  const found = boards.find((b) => b.id === id);
  if (!found)
    throw new UsageError(`There is no board "${id}"; there ${boards.length === 1 ? 'is' : 'are'} ${named}.`);
  return found;
}

function propose(options: Options, circuit: LayerCircuit, wires: Parameters<typeof proposeBoard>[1]) {
  const edge = (name: 'columns' | 'rows') => {
    options.requiredText(name);
    const count = options.count(name, 1);
    if (count > MOST_HOLES) throw new UsageError(`--${name} is at most ${MOST_HOLES}, not ${count}.`);
    return count;
  };
  const text = options.text('style') ?? 'strip';
  const style = BOARD_STYLES.find((s) => s === text);
  if (!style) throw new UsageError(`--style is ${BOARD_STYLES.join(' or ')}, not "${text}".`);
  const proposal = proposeBoard(circuit, wires, {
    style,
    columns: edge('columns'),
    rows: edge('rows'),
    seed: options.seed(),
    id: options.text('board'),
    mayGoOn: options.untilSeconds(USUAL_SECONDS),
  });
  if (!proposal.ok) throw new NoAnswer(proposal.why);
  return { ok: true, board: proposal.board, notes: proposal.notes };
}
