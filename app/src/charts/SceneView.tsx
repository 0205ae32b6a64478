import { memo, useId, useMemo, type ReactNode } from 'react';
import Svg, {
  Circle,
  ClipPath,
  Defs,
  G,
  Line,
  Path,
  Pattern,
  RadialGradient,
  Rect,
  Stop,
  Text as SvgText,
  TSpan,
} from 'react-native-svg';
import type { StyleProp, ViewStyle } from 'react-native';
import type { Palette } from '@vivid-beacon/core/src/drawing/palette';
import {
  clipId,
  definitionsOf,
  lightId,
  type Box,
  type Face,
  type GroupMark,
  type Mark,
  type Paint,
  type Scene,
} from '@vivid-beacon/core/src/drawing/scene';
import { useTurning } from '../hooks/useTurning';
import { SVG_FONTS } from '../theme/type';
import { usePalette } from '../theme/useTheme';

interface SceneViewProps {
  readonly scene: Scene;
  /** Begins the ids of its groups that have a name; without it nothing of it can be found. */
  readonly id?: string;
  /** What it is called, where nothing beside it says so: then it is an image of that name. */
  readonly name?: string;
  readonly style?: StyleProp<ViewStyle>;
  /** Drawn over it: what moves while a finger moves. */
  readonly children?: ReactNode;
}

/** A scene on the screen. Only the differences between scenes are applied. */
export function SceneView({ scene, id, name, style, children }: SceneViewProps) {
  return (
    <Svg
      width={scene.width}
      height={scene.height}
      style={style}
      {...(name === undefined ? { 'aria-hidden': true } : { role: 'img', 'aria-label': name })}
    >
      <Marks scene={scene} id={id} />
      {children}
    </Svg>
  );
}

interface Pen {
  readonly id: string;
  readonly palette: Palette;
}

const Marks = memo(function Marks({ scene, id }: { readonly scene: Scene; readonly id?: string }) {
  const own = useId().replace(/:/g, '');
  const palette = usePalette();
  const pen = useMemo(() => ({ id: id ?? own, palette }), [id, own, palette]);
  return (
    <>
      <Definitions scene={scene} pen={pen} />
      {scene.marks.map((mark) => drawn(mark, pen))}
    </>
  );
});

function Definitions({ scene, pen: { id, palette } }: { readonly scene: Scene; readonly pen: Pen }) {
  const { lights, clips, isHatched } = definitionsOf(scene);
  if (lights.length === 0 && clips.length === 0 && !isHatched) return null;
  return (
    <Defs>
      {lights.map((light) => (
        <RadialGradient
          key={lightId(light)}
          id={id + lightId(light)}
          gradientUnits="userSpaceOnUse"
          cx={light.cx}
          cy={light.cy}
          r={light.r}
        >
          <Stop offset={0} stopColor={palette[light.ink]} stopOpacity={0.16} />
          <Stop offset={0.5} stopColor={palette[light.ink]} stopOpacity={palette.beamTop / 2} />
          <Stop offset={1} stopColor={palette[light.ink]} stopOpacity={palette.beamTop} />
        </RadialGradient>
      ))}
      {clips.map((box) => (
        <ClipPath key={clipId(box)} id={id + clipId(box)}>
          <Rect {...box} />
        </ClipPath>
      ))}
      {isHatched && (
        <Pattern
          id={`${id}hatch`}
          width={8}
          height={8}
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <Line x1={0} y1={0} x2={0} y2={8} stroke={palette.line2} strokeWidth={1} opacity={0.7} />
        </Pattern>
      )}
    </Defs>
  );
}

function drawn(mark: Mark, pen: Pen): ReactNode {
  switch (mark.kind) {
    case 'path':
      return (
        mark.d !== '' && (
          <Path
            key={mark.key}
            d={mark.d}
            clipPath={mark.clip && `url(#${pen.id}${clipId(mark.clip)})`}
            {...painted(mark, pen)}
          />
        )
      );
    case 'rect':
      return <Rect key={mark.key} {...boxOf(mark)} {...painted(mark, pen)} />;
    case 'circle':
      return <Circle key={mark.key} cx={mark.cx} cy={mark.cy} r={mark.r} {...painted(mark, pen)} />;
    case 'hatch':
      return <Rect key={mark.key} {...boxOf(mark)} fill={`url(#${pen.id}hatch)`} />;
    case 'text':
      return mark.words.length > 0 && <Written key={mark.key} mark={mark} pen={pen} />;
    case 'group':
      return <Group key={mark.key} mark={mark} pen={pen} />;
  }
}

const boxOf = ({ x, y, width, height }: Box): Box => ({ x, y, width, height });

/** Attributes of a shape; only those that say anything. */
function painted({ fill, fillOpacity, stroke, strokeWidth, dash, round, opacity }: Paint, pen: Pen): object {
  return {
    fill:
      fill === undefined
        ? 'none'
        : typeof fill === 'object'
          ? `url(#${pen.id}${lightId(fill)})`
          : pen.palette[fill],
    ...(fillOpacity !== undefined && { fillOpacity }),
    ...(stroke && { stroke: pen.palette[stroke], strokeWidth: strokeWidth ?? 1 }),
    ...(dash && { strokeDasharray: dash }),
    ...(round && { strokeLinejoin: 'round', strokeLinecap: 'round' }),
    ...(opacity !== undefined && { opacity }),
  };
}

function Written({ mark, pen }: { readonly mark: Mark & { readonly kind: 'text' }; readonly pen: Pen }) {
  const { words, face, size, ink, anchor, outline } = mark;
  const one = words.length === 1 ? words[0] : null;
  return (
    <SvgText
      x={one?.x}
      y={one?.y}
      fontFamily={SVG_FONTS[face satisfies Face]}
      fontSize={size}
      fill={pen.palette[ink]}
      textAnchor={anchor}
      // The outline lies under the fill.
      {...(outline && ({ stroke: pen.palette[outline], strokeWidth: 3, paintOrder: 'stroke' } as object))}
    >
      {one
        ? one.text
        : words.map(({ x, y, text }, i) => (
            // By their place, so that a new scene moves the words that are there.
            <TSpan key={i} x={x} y={y}>
              {text}
            </TSpan>
          ))}
    </SvgText>
  );
}

function Group({ mark, pen }: { readonly mark: GroupMark; readonly pen: Pen }) {
  const { turned, name, opacity, clip, marks } = mark;
  const content = marks.map((each) => drawn(each, pen));
  return (
    <G
      id={name && pen.id + name}
      transform={placeOf(mark)}
      opacity={opacity}
      clipPath={clip && `url(#${pen.id}${clipId(clip)})`}
    >
      {turned ? <Turned {...turned}>{content}</Turned> : content}
    </G>
  );
}

function placeOf({ x = 0, y = 0, scale = 1 }: GroupMark): string | undefined {
  const moved = x === 0 && y === 0 ? '' : `translate(${x} ${y})`;
  const scaled = scale === 1 ? '' : `scale(${scale})`;
  return moved + scaled || undefined;
}

/** Turns to a new angle from where it was. */
function Turned({
  degrees,
  cx,
  cy,
  children,
}: NonNullable<GroupMark['turned']> & { readonly children: ReactNode }) {
  const at = useTurning(degrees);
  return <G transform={`rotate(${at.toFixed(2)} ${cx} ${cy})`}>{children}</G>;
}
