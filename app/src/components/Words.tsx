import type { ReactNode } from 'react';
import { Text, type TextStyle } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { TYPE, type TypeRole } from '../theme/type';

interface WordsProps {
  readonly as: TypeRole;
  readonly children: ReactNode;
  readonly colour?: string;
  /** Heading level, for the outline that screen readers show. */
  readonly heading?: 1 | 2 | 3;
  readonly style?: TextStyle;
  readonly lines?: number;
}

/** Text in one of the roles of the type scale. */
export function Words({ as, children, colour, heading, style, lines }: WordsProps) {
  const palette = usePalette();
  return (
    <Text
      role={heading ? 'heading' : undefined}
      aria-level={heading}
      numberOfLines={lines}
      style={[TYPE[as], { color: colour ?? palette.ink }, style]}
    >
      {children}
    </Text>
  );
}
