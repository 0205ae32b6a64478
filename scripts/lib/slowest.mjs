/** How many are listed. */
const MOST = 20;

/** Seconds of each test file in a report of Jest, and of each test in one of Playwright: [{ name, seconds }]. */
export function filesOfJest(report, root) {
  return report.testResults.map(({ name, startTime, endTime }) => ({
    name: name.startsWith(root) ? name.slice(root.length + 1) : name,
    seconds: (endTime - startTime) / 1000,
  }));
}

export function testsOfPlaywright(report) {
  const found = [];
  const visit = ({ suites = [], specs = [] }, above) => {
    for (const suite of suites) visit(suite, [...above, suite.title]);
    for (const { title, tests } of specs) {
      for (const { projectName, results } of tests) {
        const seconds = results.reduce((sum, { duration }) => sum + duration, 0) / 1000;
        found.push({ name: `${projectName}: ${[...above, title].join(' › ')}`, seconds });
      }
    }
  };
  visit(report, []);
  return found;
}

/** Lines that name the slowest, the slowest first. */
export function slowest(of, entries) {
  const listed = [...entries].sort((a, b) => b.seconds - a.seconds).slice(0, MOST);
  const total = entries.reduce((sum, { seconds }) => sum + seconds, 0);
  return [
    `The slowest ${listed.length} of ${entries.length} ${of} (${total.toFixed(0)} s in all):`,
    ...listed.map(({ name, seconds }) => `${seconds.toFixed(1).padStart(7)} s  ${name}`),
  ];
}
