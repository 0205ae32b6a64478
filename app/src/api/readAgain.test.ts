import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { readAgain } from './readAgain';

/** Readings whose answers the test sends, in order. */
function watched(client: QueryClient) {
  const answers: ((value: string) => void)[] = [];
  const observer = new QueryObserver<string>(client, {
    queryKey: ['watch'],
    queryFn: () => new Promise<string>((resolve) => answers.push(resolve)),
    retry: false,
  });
  const stop = observer.subscribe(() => undefined);
  return { answers, observer, stop };
}
const settle = () => new Promise((resolve) => setTimeout(resolve, 5));

describe('reading again after a change', () => {
  it('follows a first reading that began before the change', async () => {
    const client = new QueryClient();
    const { answers, observer, stop } = watched(client);
    readAgain(client, 'watch');
    expect(answers).toHaveLength(1);
    answers[0]('before the alarm');
    await settle();
    expect(answers).toHaveLength(2);
    answers[1]('with the alarm');
    await settle();
    expect(observer.getCurrentResult().data).toBe('with the alarm');
    expect(answers).toHaveLength(2);
    stop();
    client.clear();
  });

  it('reads what is there once more, and what comes from the reading before is not taken', async () => {
    const client = new QueryClient();
    const { answers, observer, stop } = watched(client);
    answers[0]('first');
    await settle();
    readAgain(client, 'watch');
    readAgain(client, 'watch');
    expect(answers).toHaveLength(3);
    answers[2]('newest');
    answers[1]('older');
    await settle();
    expect(observer.getCurrentResult().data).toBe('newest');
    stop();
    client.clear();
  });

  it('leaves other topics alone', () => {
    const client = new QueryClient();
    const { answers, stop } = watched(client);
    readAgain(client, 'alarms');
    expect(answers).toHaveLength(1);
    stop();
    client.clear();
  });
});
