// The page of `corvex view` in headless Chromium, without a graphics processor: from the save of a model of 49 members to
// its picture, and pictures of 2,000 members. Prints the rows of docs/speed.md.
//     node bench/page.mjs     (after ./run-tests has installed tests/page/node_modules)
import {createRequire} from 'node:module';
import {mkdtempSync, readFileSync, rmSync, writeFileSync} from 'node:fs';
import {spawn} from 'node:child_process';
import {tmpdir} from 'node:os';
import {dirname, join} from 'node:path';
import {fileURLToPath, pathToFileURL} from 'node:url';

const root = join(dirname(fileURLToPath(import.meta.url)), '..');
const require = createRequire(join(root, 'tests/page/package.json'));
const puppeteer = (await import(pathToFileURL(require.resolve('puppeteer-core')))).default;
const program = process.env.CORVEX_PROGRAM ?? join(root, 'build/release/bin/corvex');

function girder() {
  const bays = 12;
  const out = ['units: {length: m, force: kN}', 'points:'];
  for (let i = 0; i <= bays; ++i) out.push(`  a${i}: [${i}, 0]`, `  b${i}: [${i}, 1]`);
  out.push('members:');
  const bar = (name, a, b) => out.push(`  ${name}: {through: [${a}, ${b}], section: SHS 60x60x4, material: S235}`);
  for (let i = 0; i < bays; ++i) {
    bar(`lower${i}`, `a${i}`, `a${i + 1}`);
    bar(`upper${i}`, `b${i}`, `b${i + 1}`);
    bar(`post${i}`, `a${i}`, `b${i}`);
    bar(`brace${i}`, `a${i}`, `b${i + 1}`);
  }
  bar('last', `a${bays}`, `b${bays}`);
  out.push(`supports: {a0: pinned, a${bays}: roller}`, 'loads: {load: [{at: b6, force: {down: 10}}]}', 'limits: [{safety: 1}, {sag: 1/300}]');
  return out.join('\n') + '\n';
}

function lattice() {
  const [nx, ny, nz] = [10, 10, 8];
  const out = ['units: {length: m, force: kN}', 'points:'];
  const each = (f) => {
    for (let i = 0; i < nx; ++i) for (let j = 0; j < ny; ++j) for (let k = 0; k < nz; ++k) f(i, j, k);
  };
  each((i, j, k) => out.push(`  p${i}_${j}_${k}: [${i}, ${j}, ${k}]`));
  out.push('members:');
  let members = 0;
  each((i, j, k) => {
    for (const [a, b, c] of [[i + 1, j, k], [i, j + 1, k], [i, j, k + 1]])
      if (a < nx && b < ny && c < nz) out.push(`  m${++members}: {through: [p${i}_${j}_${k}, p${a}_${b}_${c}], section: SHS 60x60x4, material: S235}`);
  });
  out.push('supports:');
  for (let i = 0; i < nx; ++i) for (let j = 0; j < ny; ++j) out.push(`  p${i}_${j}_0: fixed`);
  out.push('loads:', '  roof:');
  for (let i = 0; i < nx; ++i) for (let j = 0; j < ny; ++j) out.push(`    - {at: p${i}_${j}_${nz - 1}, force: {down: 2, x: 0.3}}`);
  return out.join('\n') + '\n';
}

const folder = mkdtempSync(join(tmpdir(), 'corvex-bench-'));
const browser = await puppeteer.launch({executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: ['--no-sandbox']});
const median = (all) => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)];

async function opened(name, text) {
  const path = join(folder, name);
  writeFileSync(path, text);
  const child = spawn(program, ['view', path], {stdio: ['ignore', 'pipe', 'ignore']});
  const address = await new Promise((resolve) => child.stdout.on('data', (d) => resolve(String(d).trim())));
  const page = await browser.newPage();
  await page.setViewport({width: 1280, height: 800});
  await page.goto(address, {timeout: 0});
  await page.waitForFunction(() => window.corvexPage?.spots, {timeout: 0});
  return {path, child, page};
}

try {
  const small = await opened('girder.yaml', girder());
  const text = readFileSync(small.path, 'utf8');
  const saves = [];
  for (let i = 0; i < 21; ++i) {
    await small.page.evaluate(() => {
      const app = window.corvexPage;
      const take = app.take.bind(app);
      app.seen = 0;
      app.take = (...given) => {
        take(...given);
        app.take = take;
        app.paint();
        app.seen = performance.timeOrigin + performance.now();
      };
    });
    const saved = performance.timeOrigin + performance.now();
    writeFileSync(small.path, `${text}# ${i}\n`);
    await small.page.waitForFunction(() => window.corvexPage.seen > 0);
    saves.push((await small.page.evaluate(() => window.corvexPage.seen)) - saved);
    await new Promise((r) => setTimeout(r, 300));
  }
  small.child.kill();
  await small.page.close();

  const large = await opened('lattice.yaml', lattice());
  const members = await large.page.evaluate(() => window.corvexPage.model.members.length);
  const painted = async (what) => {
    await large.page.select('#what', what);
    return median(await large.page.evaluate(() => {
      const app = window.corvexPage;
      return Array.from({length: 21}, () => {
        app.camera.turn(0.05, 0.01, app.model.up);
        const begun = performance.now();
        app.paint();
        return performance.now() - begun;
      });
    }));
  };
  const times = {};
  for (const what of ['deformed', 'axial', 'moment']) times[what] = await painted(what);
  await large.page.select('#what', 'deformed');
  const frames = await large.page.evaluate(async () => {
    const app = window.corvexPage;
    app.toggleMotion();
    let count = 0;
    const begun = performance.now();
    await new Promise((done) => {
      const next = () => (++count, performance.now() - begun > 3000 ? done() : requestAnimationFrame(next));
      requestAnimationFrame(next);
    });
    app.toggleMotion();
    return (count * 1000) / (performance.now() - begun);
  });
  large.child.kill();
  console.log('| the page of `view` | |');
  console.log('|---|---|');
  console.log(`| 49 members: from the save to the picture, median of ${saves.length} | ${median(saves).toFixed(0)} ms |`);
  console.log(`| ${members} members: one picture of the deformed shape, of N, of M | ${times.deformed.toFixed(0)}, ${times.axial.toFixed(0)}, ${times.moment.toFixed(0)} ms of the page's own time |`);
  console.log(`| the same: pictures a second while it moves, drawn without a graphics processor | ${frames.toFixed(0)} |`);
} finally {
  await browser.close();
  rmSync(folder, {recursive: true, force: true});
}
process.exit(0);
