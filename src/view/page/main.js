// The page: a state, what draws it, and what changes it.
import {Controls} from './controls.js';
import {wirePicture} from './pointer.js';
import {Rendering} from './rendering.js';
import {ask, casesOf, embeddedModels, served} from './server.js';
import {State} from './state.js';

const $ = (id) => document.getElementById(id);

class App extends State {
  constructor() {
    super();
    this.variant = served ? null : ''; // null: the one that the server begins with
    this.version = 0;
    this.rendering = new Rendering(this);
    this.controls = new Controls(this);
  }

  take(model, keepView) {
    this.adopt(model);
    this.rendering.take();
    if (!keepView) {
      this.rendering.camera.view(model.plane ? 'front' : 'space', model.up);
      this.rendering.measure();
      this.rendering.fit();
    }
    this.controls.fill();
  }

  // -- getting results -----------------------------------------------------------------------------------------------
  async need(index) {
    const wanted = index === 'envelope' ? this.assessed() : [index];
    for (const i of wanted) {
      if (this.loads.has(i)) continue;
      if (!served) continue;
      const {loads} = this;
      const answer = await ask('case', {variant: this.variant, index: i});
      if (answer.case && loads === this.loads) loads.set(i, answer.case);
    }
    this.needStress(wanted);
  }

  // Takes longer than what is drawn, and comes after it.
  async needStress(wanted) {
    const {loads, variant} = this;
    for (const i of wanted) {
      const load = loads.get(i);
      if (!served || !load || load.stress || load.asked) continue;
      load.asked = true;
      const answer = await ask('stress', {variant, index: i});
      if (!answer.stress || loads !== this.loads) return;
      load.stress = answer.stress;
      if (this.place) this.controls.showPlace();
      this.rendering.draw();
    }
  }

  async fetchModel(keepView) {
    const name = this.model && !this.isEnvelope() ? this.model.cases[this.index].name : '';
    const {variant} = this;
    const answer = await ask('model', {variant, case: name});
    // Another variant was chosen meanwhile: its answer is still to come.
    if (variant !== this.variant) return;
    this.version = answer.version;
    this.controls.showProblems([...answer.problems, ...(answer.refused ?? [])]);
    if (!answer.model) return;
    this.loads = new Map([[answer.case.index, answer.case]]);
    this.variant ??= answer.model.variant;
    this.take(answer.model, keepView);
    if (!this.loads.has(this.index) || this.isEnvelope()) await this.need(this.index);
    this.refresh();
    this.needStress(this.isEnvelope() ? this.assessed() : [this.index]);
  }

  async follow() {
    for (;;) {
      try {
        const news = await ask('news', {version: this.version});
        if (news.version !== this.version) await this.fetchModel(Boolean(this.model));
      } catch {
        this.controls.showProblems([{severity: 'error', text: 'The program has ended: start it again and reload this page.', line: 0, remedy: ''}]);
        return;
      }
    }
  }

  // -- changes -------------------------------------------------------------------------------------------------------
  refresh() {
    this.controls.fillModes();
    this.controls.showPanel();
    this.rendering.draw();
    if (this.place) this.showPlace();
  }

  showPlace() {
    this.rendering.paint();
    this.controls.showPlace();
  }

  step(change) {
    change(this);
    this.showPlace();
  }

  choose(name) {
    this.chosen = name;
    const member = this.model.members.findIndex((m) => m.name === name);
    if (member >= 0 && (!this.place || this.place.member !== member)) {
      this.place = null;
      this.controls.showPlace();
    }
    this.controls.showPanel('member');
    this.rendering.draw();
  }

  chooseNothing() {
    this.place = null;
    this.chosen = null;
    this.controls.showPlace();
    this.controls.showPanel();
  }

  async setCase(value) {
    const index = value === 'envelope' ? value : Number(value);
    await this.need(index);
    this.select(index);
    this.refresh();
  }

  async setVariant(name) {
    this.variant = name;
    if (served) return this.fetchModel(true);
    const set = embeddedModels().find((s) => s.model.variant === name);
    this.loads = casesOf(set);
    this.take(set.model, !set.model.first);
    this.refresh();
  }

  view(name) {
    this.rendering.camera.view(name, this.model.up);
    this.rendering.fit();
  }

  setDark(dark) {
    this.rendering.dark = dark;
    document.documentElement.classList.toggle('dark', dark);
    $('dark').setAttribute('aria-pressed', String(dark));
    this.rendering.draw();
  }

  toggleMotion() {
    const {rendering} = this;
    rendering.moving = !rendering.moving;
    rendering.phase = 1;
    $('motion').setAttribute('aria-pressed', String(rendering.moving));
    rendering.draw();
  }
}

const app = new App();
window.corvexPage = app; // for tests of the page
app.controls.wire();
wirePicture(app);
app.setDark(app.rendering.dark);
if (served) {
  app.fetchModel(false).then(() => app.follow());
} else {
  const [first] = embeddedModels();
  app.loads = casesOf(first);
  app.take(first.model, false);
  app.refresh();
}
