import { screen } from '@testing-library/react';
import { renderScreen } from '../testing/renderScreen';
import { Markdown } from './Markdown';
import { safeLink } from './safeLink';

jest.mock('expo-router', () => ({
  Link: ({ href, children }: { href: string; children: unknown }) => <a href={href}>{children as never}</a>,
}));

describe('a note', () => {
  it('shows headings, stress, lists and links to places of ours', () => {
    renderScreen(
      <Markdown
        text={'# Dryers\n\nRun **cool**, *slowly*.\n\n1. first\n2. [board](/boards/3)\n\n> said\n\n---'}
      />,
    );
    expect(screen.getByRole('heading', { level: 3 }).textContent).toBe('Dryers');
    expect(screen.getByText('cool')).toBeTruthy();
    expect(screen.getAllByRole('listitem').map((each) => each.textContent)).toEqual(['1.first', '2.board']);
    expect(screen.getByRole('link').getAttribute('href')).toBe('/boards/3');
  });

  it.each([
    '<img src=x onerror=alert(1)>',
    '<script>alert(1)</script>',
    '[x](javascript:alert(1))',
    '[x](data:text/html,<b>x</b>)',
    '[x](//elsewhere.example)',
    '![x](https://elsewhere.example/a.png)',
    'text <a href="javascript:alert(1)">x</a>',
  ])('makes nothing of %s but text', (text) => {
    const { container } = renderScreen(<Markdown text={text} />);
    expect(container.querySelectorAll('img, script, a, iframe')).toHaveLength(0);
    expect(container.textContent).not.toBe('');
  });
});

describe('safeLink', () => {
  it.each([
    ['/boards/1', '/boards/1'],
    ['https://example.org/a', 'https://example.org/a'],
    ['mailto:a@b.example', 'mailto:a@b.example'],
    ['//elsewhere.example', null],
    ['/\\elsewhere.example', null],
    ['/\t/elsewhere.example', null],
    ['javascript:alert(1)', null],
    [' JaVaScRiPt:alert(1)', null],
    ['data:text/html,x', null],
    ['file:///etc/passwd', null],
    ['boards/1', null],
  ])('takes %p as %p', (href, to) => {
    expect(safeLink(href)).toBe(to);
  });
});
