import { useState } from 'react';
import { View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { GLOSSARY, type Term } from './glossary';
import { HelpIcon } from './icons';
import { IconButton } from './IconButton';
import { Row } from './Row';
import { Tray } from './Tray';
import { Words } from './Words';

/** Says what a word of the product means, with the other words below it. */
export function TermButton({ term }: { readonly term: Term }) {
  const palette = usePalette();
  const [open, setOpen] = useState(false);
  const [word, meaning] = GLOSSARY[term];
  const others = Object.entries(GLOSSARY).filter(([key]) => key !== term);
  return (
    <>
      <IconButton icon={HelpIcon} name={`What ${word} means`} onPress={() => setOpen(true)} />
      <Tray title={word} open={open} onClose={() => setOpen(false)}>
        <Words as="body">{meaning}</Words>
        <View>
          <Words as="second" colour={palette.ink2}>
            Other words
          </Words>
          {others.map(([key, [other, text]], i) => (
            <Row key={key} title={other} second={text} last={i === others.length - 1} />
          ))}
        </View>
      </Tray>
    </>
  );
}
