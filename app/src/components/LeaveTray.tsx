import { useEffect, useState, type ReactNode } from 'react';
import { Button } from './Button';
import { Tray } from './Tray';
import { Words } from './Words';

/**
 * Asks before what was changed is left behind, also when the page is closed or loaded anew.
 *
 * @param changed whether anything would be lost. @returns what the buttons that leave do, and the question.
 */
export function useLeaving(
  changed: boolean,
  leave: () => void,
): { readonly ask: () => void; readonly question: ReactNode } {
  const [asking, setAsking] = useState(false);
  useEffect(() => {
    if (!changed) return;
    const hold = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener('beforeunload', hold);
    return () => window.removeEventListener('beforeunload', hold);
  }, [changed]);
  return {
    ask: () => (changed ? setAsking(true) : leave()),
    question: (
      <Tray title="Leave without saving" open={asking} onClose={() => setAsking(false)}>
        <Words as="body">What you changed here would be lost.</Words>
        <Button variant="primary" label="Go on here" onPress={() => setAsking(false)} />
        <Button label="Leave" name="Leave and lose the changes" onPress={leave} />
      </Tray>
    ),
  };
}
