// Every check and test of npm test, in two rounds: what looks at the sources side by side with the build, then what runs
// them. What did not change since it last passed is not checked again. Given a pattern, only tests that fit it are run.
import { execFileSync, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const STATE = '.foglio';
const JEST = join(STATE, 'test/unit.json');
const PLAYWRIGHT = join(STATE, 'test/journeys.json');
const SLOWEST = 10;

const pattern = process.argv[2];
const steps = [];

/** Every file of the project that git knows or would take, with its content. */
const filesOf = () =>
  execFileSync('git', ['ls-files', '-co', '--exclude-standard', '-z'], { encoding: 'utf8' })
    .split('\0')
    .filter(existsSync);

function hashOf(files) {
  const hash = createHash('sha256');
  for (const file of files.sort()) hash.update(file).update(readFileSync(file));
  return hash.digest('hex');
}

/** Runs a command. Its words are kept back where others run beside it, and shown where it fails. */
function run(command, args, beside) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      stdio: beside ? ['ignore', 'pipe', 'pipe'] : ['ignore', 'inherit', 'inherit'],
    });
    let told = '';
    child.stdout?.on('data', (part) => (told += part));
    child.stderr?.on('data', (part) => (told += part));
    child.on('close', (code, signal) =>
      resolve({ passed: code === 0, told: signal ? `${told}\nended by ${signal}` : told }),
    );
  });
}

/** One step: what it is called, what it runs, and the files on which its outcome depends, if it need not run again. */
async function step({ name, command, args, files = null, beside = false }) {
  const from = performance.now();
  const stamp = join(STATE, `${name.replaceAll(' ', '-')}.stamp`);
  const hash = files && hashOf(files);
  if (hash && existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) {
    console.log(`foglio: ${name}: as it was`);
    return true;
  }
  rmSync(stamp, { force: true });
  console.log(`foglio: ${name}`);
  const { passed, told } = await run(command, args, beside);
  const seconds = (performance.now() - from) / 1000;
  steps.push({ name, seconds });
  if (!passed) console.log(`${told}\nfoglio: ${name} failed after ${seconds.toFixed(0)} s`);
  else if (hash) writeFileSync(stamp, hash);
  return passed;
}

/** All of them, whatever becomes of the first: who mends one thing wants to know of the others. */
async function inTurn(list) {
  let passed = true;
  for (const one of list) passed = (await step(one)) && passed;
  return passed;
}

const npm = (script) => ({ command: 'npm', args: ['run', '--silent', script] });

/** What is found in the sources, by native tools, while the screens are built. */
async function look() {
  const files = filesOf();
  const code = files.filter((file) => /\.(ts|mjs|html|json|jsonc)$/.test(file));
  const [checked, built] = await Promise.all([
    inTurn([
      { name: 'formatting', ...npm('format:check'), files, beside: true },
      { name: 'types', ...npm('typecheck'), files: code, beside: true },
      { name: 'lint', ...npm('lint'), files: code, beside: true },
      { name: 'unused', ...npm('unused'), files: code, beside: true },
    ]),
    step({ name: 'build', command: 'bash', args: ['scripts/build.sh'], beside: true }),
  ]);
  return checked && built;
}

/** Arguments that choose tests, null where none of a kind fits: by the paths of their files, or else by their titles. */
function chosen() {
  if (!pattern) return { jest: [], playwright: [] };
  const fits = (text) => new RegExp(pattern).test(text);
  const tests = filesOf().filter((file) => /\.(test|spec)\.ts$/.test(file));
  const byPath = tests.filter(fits);
  const files = byPath.length > 0 ? byPath : tests.filter((file) => fits(readFileSync(file, 'utf8')));
  const title = (option) => (byPath.length > 0 ? [] : [option, pattern]);
  const journeys = files.filter((file) => file.startsWith('tests/e2e/'));
  const others = files.filter((file) => !file.startsWith('tests/e2e/'));
  return {
    jest: others.length > 0 ? ['--runTestsByPath', ...others, ...title('--testNamePattern')] : null,
    playwright: journeys.length > 0 ? [...journeys, ...title('--grep')] : null,
  };
}

const unit = (args) => ({
  name: 'unit tests',
  command: 'npx',
  args: ['jest', '--maxWorkers=2', '--json', `--outputFile=${JEST}`, ...args],
});
const journeys = (args) => ({ name: 'journeys in Chromium', command: 'npx', args: ['playwright', 'test', ...args] });

/** Outcomes as both runners write them, in one form. */
function outcomes() {
  const read = (path) => (existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null);
  const unitTests = (read(JEST)?.testResults ?? []).flatMap(({ name, assertionResults }) =>
    assertionResults.map(({ fullName, status, duration }) => ({
      name: `${name.split('/').pop()}: ${fullName}`,
      seconds: (duration ?? 0) / 1000,
      status,
    })),
  );
  const specsOf = (suite) => [...(suite.specs ?? []), ...(suite.suites ?? []).flatMap(specsOf)];
  const told = (read(PLAYWRIGHT)?.suites ?? []).flatMap(specsOf).map(({ file, title, ok, tests }) => ({
    name: `${file}: ${title}`,
    seconds: (tests[0]?.results[0]?.duration ?? 0) / 1000,
    status: tests[0]?.results.length === 0 ? 'pending' : ok ? 'passed' : 'failed',
  }));
  return [...unitTests, ...told];
}

function table() {
  const row = ({ name, seconds }) => `${seconds.toFixed(1).padStart(8)} s  ${name.slice(0, 110)}`;
  const bySeconds = (one, other) => other.seconds - one.seconds;
  const tests = outcomes();
  console.log(['', 'Steps', ...steps.map(row)].join('\n'));
  console.log(['', `The ${SLOWEST} slowest tests`, ...tests.sort(bySeconds).slice(0, SLOWEST).map(row), ''].join('\n'));
  const count = (status) => tests.filter((test) => test.status === status).length;
  console.log(`${count('passed')} passed, ${count('failed')} failed`);
  return tests.length;
}

// Hundreds of workers are started, and none waits long for work.
process.env.FOGLIO_REHEARSE = 'no';
mkdirSync(join(STATE, 'test'), { recursive: true });
for (const old of [JEST, PLAYWRIGHT]) rmSync(old, { force: true });
const { jest, playwright } = chosen();
let passed = pattern
  ? !playwright || (await step({ name: 'build', command: 'bash', args: ['scripts/build.sh'] }))
  : await look();
if (passed && jest) passed = await step(unit(jest));
if (passed && playwright) passed = await step(journeys(playwright));
const count = table();
if (pattern && count === 0) console.log(`no test fits "${pattern}"`);
const seconds = performance.now() / 1000;
console.log(`foglio: ${passed && count > 0 ? 'all green' : 'not green'} in ${seconds.toFixed(0)} s`);
process.exit(passed && count > 0 ? 0 : 1);
