import { Link, type Href } from 'expo-router';
import { marked, type Token, type Tokens } from 'marked';
import { Fragment, useMemo, type ReactNode } from 'react';
import { StyleSheet, Text, View } from 'react-native';
import { TYPE } from '../theme/type';
import { usePalette } from '../theme/useTheme';
import { Rule } from './Rule';
import { safeLink } from './safeLink';
import { Words } from './Words';

/**
 * A subset of Markdown (CommonMark): headings, paragraphs, lists, stress, code, rules and links. HTML and
 * pictures are shown as the text they are; links lead to pages of ours, the web or mail, and nowhere else.
 */
export function Markdown({ text }: { readonly text: string }) {
  const tokens = useMemo(() => marked.lexer(text), [text]);
  return (
    <View style={styles.text}>
      {tokens.map((token, i) => (
        <Block key={i} token={token} />
      ))}
    </View>
  );
}

function Block({ token }: { readonly token: Token }) {
  switch (token.type) {
    case 'space':
      return null;
    case 'hr':
      return <Rule />;
    case 'heading': {
      const { depth, tokens } = token as Tokens.Heading;
      return (
        <Words as={depth === 1 ? 'sectionHead' : 'rowTitle'} heading={3}>
          <Inline tokens={tokens} />
        </Words>
      );
    }
    case 'list': {
      const { items, ordered, start } = token as Tokens.List;
      return (
        <View role="list" style={styles.list}>
          {items.map((item, i) => (
            <View key={i} role="listitem" style={styles.item}>
              <Words as="body">{ordered ? `${Number(start || 1) + i}.` : '\u2022'}</Words>
              <View style={styles.words}>
                {item.tokens.map((inner, k) => (
                  <Block key={k} token={inner} />
                ))}
              </View>
            </View>
          ))}
        </View>
      );
    }
    case 'blockquote':
      return (
        <View style={styles.quote}>
          {(token as Tokens.Blockquote).tokens.map((inner, i) => (
            <Block key={i} token={inner} />
          ))}
        </View>
      );
    case 'paragraph':
    case 'text': {
      const { tokens, text } = token as Tokens.Paragraph;
      return <Words as="body">{tokens ? <Inline tokens={tokens} /> : text}</Words>;
    }
    default:
      return <Words as="body">{token.raw.trimEnd()}</Words>;
  }
}

function Inline({ tokens }: { readonly tokens: readonly Token[] }): ReactNode {
  const palette = usePalette();
  return tokens.map((token, i) => {
    switch (token.type) {
      case 'strong':
        return (
          <Text key={i} style={TYPE.bodyStrong}>
            <Inline tokens={(token as Tokens.Strong).tokens} />
          </Text>
        );
      case 'em':
        return (
          <Text key={i} style={styles.em}>
            <Inline tokens={(token as Tokens.Em).tokens} />
          </Text>
        );
      case 'br':
        return <Fragment key={i}>{'\n'}</Fragment>;
      case 'codespan':
        return <Fragment key={i}>{(token as Tokens.Codespan).text}</Fragment>;
      case 'escape':
        return <Fragment key={i}>{(token as Tokens.Escape).text}</Fragment>;
      case 'text': {
        const { tokens: inner, text } = token as Tokens.Text;
        return inner ? <Inline key={i} tokens={inner} /> : <Fragment key={i}>{text}</Fragment>;
      }
      case 'link': {
        const { href, tokens: inner } = token as Tokens.Link;
        const to = safeLink(href);
        if (!to) return <Fragment key={i}>{token.raw}</Fragment>;
        return (
          <Link key={i} href={to as Href} style={{ color: palette.sea, textDecorationLine: 'underline' }}>
            <Inline tokens={inner} />
          </Link>
        );
      }
      default:
        return <Fragment key={i}>{token.raw}</Fragment>;
    }
  });
}

const styles = StyleSheet.create({
  text: { gap: 8 },
  list: { gap: 2 },
  item: { flexDirection: 'row', gap: 8 },
  words: { flex: 1, minWidth: 0, gap: 4 },
  quote: { paddingLeft: 12, gap: 4 },
  em: { fontStyle: 'italic' },
});
