// The page in headless Chromium: from a file that `corvex view -o` writes, or served by `corvex view`.
import {execFileSync, spawn} from 'node:child_process';
import {mkdtempSync, readFileSync, rmSync, writeFileSync} from 'node:fs';
import {tmpdir} from 'node:os';
import {dirname, join} from 'node:path';
import {fileURLToPath} from 'node:url';
import puppeteer from 'puppeteer-core';

const here = dirname(fileURLToPath(import.meta.url));
export const program = process.env.CORVEX_PROGRAM ?? join(here, '../../build/release/bin/corvex');
export const examples = join(here, '../../examples/cider-works');

export class Folder {
  constructor() {
    this.path = mkdtempSync(join(tmpdir(), 'corvex-page-'));
  }
  file(name) {
    return join(this.path, name);
  }
  write(name, text) {
    writeFileSync(this.file(name), text);
    return this.file(name);
  }
  read(name) {
    return readFileSync(this.file(name), 'utf8');
  }
  run(...call) {
    return execFileSync(program, call, {cwd: this.path, encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore']});
  }
  remove() {
    rmSync(this.path, {recursive: true, force: true});
  }
}

export const example = (name) => readFileSync(join(examples, `${name}.yaml`), 'utf8');

const usual = ['--no-sandbox', '--use-gl=angle', '--use-angle=swiftshader', '--enable-unsafe-swiftshader'];
export function browser(flags = usual) {
  return puppeteer.launch({executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args: flags});
}
export const withoutWebGL = ['--no-sandbox', '--disable-gpu', '--disable-3d-apis'];

// A page that has drawn. What it asks for and what goes wrong in it is kept.
export async function open(chromium, address) {
  const page = await chromium.newPage();
  page.asked = [];
  page.faults = [];
  page.on('request', (r) => page.asked.push(r.url()));
  page.on('pageerror', (e) => page.faults.push(e.message));
  page.on('console', (m) => m.type() === 'error' && page.faults.push(m.text()));
  // A busy machine draws large pages slowly.
  page.setDefaultTimeout(120000);
  await page.setViewport({width: 1280, height: 800});
  await page.evaluateOnNewDocument(`window.readoutOfPage = ${readoutOfPage}`);
  await page.goto(address.startsWith('http') ? address : `file://${address}`);
  await painted(page);
  return page;
}

// When what was asked for has been drawn.
export async function painted(page) {
  await page.waitForFunction(() => window.corvexPage?.model && window.corvexPage.rendering.spots && !window.corvexPage.rendering.frame);
}
export async function choose(page, id, value) {
  await page.select(`#${id}`, value);
  await page.waitForFunction((v, i) => i !== 'case' || String(window.corvexPage.index) === v, {}, value, id);
  await page.evaluate(() => window.corvexPage.rendering.paint());
}

// Where a place of a member lies on the screen.
export function spot(page, member, share) {
  return page.evaluate((name, s) => {
    const app = window.corvexPage;
    const i = app.model.members.findIndex((m) => m.name === name);
    const [x, y] = app.rendering.spotAt({member: i, at: app.model.members[i].length * s});
    const box = document.getElementById('plot').getBoundingClientRect();
    return [x + box.left, y + box.top];
  }, member, share);
}

// What the readout says: its heading, and the words of each line.
export function readout(page) {
  return page.evaluate(() => window.readoutOfPage());
}
function readoutOfPage() {
  const box = document.getElementById('readout');
  const lines = {};
  for (const tr of box.querySelectorAll('tr')) lines[tr.querySelector('th').textContent] = [...tr.querySelectorAll('td')].map((td) => td.textContent);
  return {heading: box.querySelector('strong')?.textContent ?? '', lines};
}

const running = new Set();
// A server that a failed test has left.
export async function stopAll() {
  for (const child of running) child.kill('SIGKILL');
}

export async function server(...call) {
  const child = spawn(program, ['view', ...call], {stdio: ['ignore', 'pipe', 'pipe']});
  running.add(child);
  child.on('exit', () => running.delete(child));
  let err = '';
  child.stderr.on('data', (d) => (err += d));
  const address = await new Promise((resolve, reject) => {
    let out = '';
    child.stdout.on('data', (d) => {
      out += d;
      if (out.includes('\n')) resolve(out.trim());
    });
    child.on('exit', (code) => reject(new Error(`ended with ${code}: ${err}`)));
  });
  return {
    address,
    errors: () => err,
    stop: (signal = 'SIGINT') => new Promise((resolve) => {
      child.on('exit', (code) => resolve(code));
      child.kill(signal);
    }),
  };
}
