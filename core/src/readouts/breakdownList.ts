import type { HitRegion, Mark, Scene } from '../drawing/scene';
import { shareText } from '../drawing/ringScene';
import { textWidth } from '../drawing/textWidth';
import { formatNumber, formatValue } from '../format/format';
import { totalsBefore, type BreakdownData } from './breakdownData';
import { BREAKDOWN_HITS, isFocused, toneOf } from './breakdownMarks';
import { baseWords, changeWords, referenceWindowName } from './changeWords';
import { TEXT, wrapped, written } from './scene/words';
import { isThin, unfinishedWords } from './stateWords';

const ROW = 44;
const SWATCH = 16;
const LEFT = 34;
const SHARE = 54;

/** The parts as a list: the tone picks, the name focuses, the amount opens how it was made. */
export function partsList(data: BreakdownData, width: number, focus: string | null): Scene {
  const { parts, decimals, unit, readout, total } = data;
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  const numbers = parts.map(({ value }) => (value === null ? '–' : formatNumber(value, decimals)));
  const room = Math.max(
    ...[...numbers, formatNumber(total, decimals)].map((text) =>
      textWidth(text, TEXT.figure.face, TEXT.figure.size),
    ),
  );
  const names = Math.max(60, width - LEFT - room - SHARE - 16);
  let y = 0;
  marks.push(...totalMarks(data, width), {
    kind: 'path',
    key: 'head rule',
    d: `M0 ${ROW - 0.5}H${width}`,
    stroke: 'line2',
  });
  y += ROW;
  parts.forEach((part, i) => {
    const name = wrapped(`${i + 1}. ${part.name}`, TEXT.body, names);
    const change =
      part.of && part.previous !== null && readout.compare !== 'none'
        ? wrapped(changeWords(part.of, decimals, baseWords(readout)), TEXT.caption, names)
        : [];
    const text = name.length * TEXT.body.lineHeight + change.length * TEXT.caption.lineHeight;
    const height = Math.max(ROW, text + 8);
    const top = (height - text) / 2;
    const middle = y + height / 2;
    const own: Mark[] = [];
    if (isFocused(part, focus))
      own.push({ kind: 'rect', key: 'chosen', x: 0, y, width, height, fill: 'water' });
    const box = { x: 6, y: middle - SWATCH / 2, width: SWATCH, height: SWATCH };
    own.push(
      part.picked
        ? { kind: 'rect', key: 'tone', ...box, ...toneOf(part, i) }
        : { kind: 'rect', key: 'tone', ...box, stroke: 'line2' },
      written(name, {
        key: 'name',
        x: LEFT,
        y: y + top,
        style: TEXT.body,
        ink: part.picked ? 'ink' : 'ink3',
      }),
    );
    if (change.length > 0)
      own.push(
        written(change, {
          key: 'change',
          x: LEFT,
          y: y + top + name.length * TEXT.body.lineHeight,
          style: TEXT.caption,
          ink: 'ink2',
        }),
      );
    own.push(
      {
        kind: 'text',
        key: 'number',
        words: [{ x: width - SHARE, y: middle + 6, text: numbers[i] }],
        face: TEXT.figure.face,
        size: TEXT.figure.size,
        ink: part.picked && !(part.of && isThin(part.of)) ? 'ink' : 'ink3',
        anchor: 'end',
      },
      {
        kind: 'text',
        key: 'share',
        words: [{ x: width, y: middle + 5, text: part.share === null ? '' : shareText(part.share) }],
        face: 'regular',
        size: 14,
        ink: 'ink2',
        anchor: 'end',
      },
      { kind: 'path', key: 'rule', d: `M0 ${y + height - 0.5}H${width}`, stroke: 'line' },
    );
    marks.push({ kind: 'group', key: part.key, marks: own });
    hits.push({
      key: BREAKDOWN_HITS.pick + part.key,
      spoken: part.picked ? `Leave ${part.name} out of the total` : `Count ${part.name} in the total`,
      shape: { kind: 'box', x: 0, y, width: LEFT - 2, height },
    });
    if (part.of?.assetId != null)
      hits.push({
        key: BREAKDOWN_HITS.row + part.key,
        spoken: `${part.name}. ${isFocused(part, focus) ? 'Release the focus' : 'Focus on it'}`,
        shape: { kind: 'box', x: LEFT, y, width: names, height },
      });
    if (part.of)
      hits.push({
        key: BREAKDOWN_HITS.value + part.key,
        spoken: `${part.name} ${formatValue(part.value, unit, decimals)}. How it was made`,
        shape: { kind: 'box', x: width - SHARE - room - 8, y, width: SHARE + room + 8, height },
      });
    y += height;
  });
  const note = wrapped(breakdownNote(data), TEXT.caption, width);
  if (note[0] !== '') {
    marks.push(written(note, { key: 'note', x: 0, y: y + 6, style: TEXT.caption, ink: 'ink2' }));
    y += 6 + note.length * TEXT.caption.lineHeight;
  }
  return { width, height: y, marks, hits, spoken: '' };
}

function totalMarks(data: BreakdownData, width: number): Mark[] {
  const { total, decimals, unit } = data;
  return [
    written([isWhole(data) ? 'Together' : 'Together, of what is picked'], {
      key: 'total name',
      x: 0,
      y: (ROW - TEXT.strong.lineHeight) / 2,
      style: TEXT.strong,
      ink: 'ink',
    }),
    {
      kind: 'text',
      key: 'total',
      words: [{ x: width - SHARE, y: ROW / 2 + 6, text: formatNumber(total, decimals) }],
      face: TEXT.figure.face,
      size: TEXT.figure.size,
      ink: 'ink',
      anchor: 'end',
    },
    {
      kind: 'text',
      key: 'total unit',
      words: [{ x: width, y: ROW / 2 + 5, text: unit }],
      face: 'regular',
      size: 14,
      ink: 'ink2',
      anchor: 'end',
    },
  ];
}

const isWhole = ({ parts }: BreakdownData): boolean => parts.every(({ picked }) => picked);

/** What is left out of the total, and what does not fit it. */
export function breakdownNote(data: BreakdownData): string {
  const { parts, excess, missing, negative, unit, decimals, measured, periods, now } = data;
  const thin = parts.filter(({ of }) => of !== null && isThin(of));
  const faint = periods?.covered.some((each, i) => !each && periods.start[i] < now);
  return [
    excess > 0
      ? `The parts are ${formatValue(excess, unit, decimals)} more than the ${formatValue(measured!.value, unit, decimals)} measured of all together: some are counted twice, or a meter is wrong.`
      : '',
    missing > 0
      ? `${missing === 1 ? 'One part has' : `${missing} parts have`} no data${parts.some(({ kind }) => kind === 'rest') ? `, so that the rest may hold what ${missing === 1 ? 'it' : 'they'} used` : ''}.`
      : '',
    thin.length > 0
      ? `Less than 75 % of the data: ${thin.map(({ name, of }) => `${name} (${formatNumber(of!.coverage * 100, 0)} %)`).join(', ')}.`
      : '',
    unfinishedWords(data),
    negative > 0
      ? `${negative === 1 ? 'One part is' : `${negative} parts are`} below zero and not in the total.`
      : '',
    periods && data.readout.parts === 'overTime' && totalsBefore(data).some((total) => total !== null)
      ? `Lines: ${referenceWindowName(data.readout)}.`
      : '',
    faint ? 'Faint columns: less than 75 % of the data of a part, or not over yet.' : '',
  ]
    .filter((each) => each !== '')
    .join(' ');
}
