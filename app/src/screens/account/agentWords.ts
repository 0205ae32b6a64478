const BROWSERS: readonly (readonly [RegExp, string])[] = [
  [/Edg(e|A|iOS)?\//, 'Edge'],
  [/Firefox\/|FxiOS\//, 'Firefox'],
  [/Chrome\/|CriOS\//, 'Chrome'],
  [/Safari\//, 'Safari'],
];
const SYSTEMS: readonly (readonly [RegExp, string])[] = [
  [/Android/, 'Android'],
  [/iPhone|iPad/, 'iOS'],
  [/Windows/, 'Windows'],
  [/Mac OS X/, 'macOS'],
  [/Linux|X11/, 'Linux'],
];

/** A device as a person knows it, from what its browser tells: "Firefox on Android". */
export function agentWords(agent: string): string {
  const of = (known: typeof BROWSERS): string | undefined => known.find(([sign]) => sign.test(agent))?.[1];
  return [of(BROWSERS) ?? 'A browser', of(SYSTEMS)].filter(Boolean).join(' on ');
}
