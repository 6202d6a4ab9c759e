// A game's loader for packs, in JavaScript with a physics engine of its language: docs/packs.md goes through it.
import Ajv from "ajv";
import { Box, Chain, Polygon, Vec2, World } from "planck";
import { readFileSync } from "node:fs";

const isSame = (a, b) => a.length === b.length && a.every(one => b.includes(one));

// Reads a pack and holds it against the schemas. Make it with --unit m --y up, so that numbers go to the engine as they are.
export function readPack(file, schemas) {
  const read = name => JSON.parse(readFileSync(name, "utf8"));
  const ajv = new Ajv({ strict: true });
  ajv.addSchema(read(`${schemas}/merge.schema.json`), "merge.schema.json");
  const pack = read(file), isValid = ajv.compile(read(`${schemas}/pack.schema.json`));
  if (!isValid(pack)) throw new Error(`${file}: ${ajv.errorsText(isValid.errors)}`);
  if (pack.unit !== "m" || pack.y !== "up") throw new Error(`${file}: made without --unit m --y up`);
  return pack;
}

// The numbers of a row of cells: "0*3 7" is 0 0 0 7.
export const rowOf = text => text.split(" ").flatMap(run => { const [n, count = 1] = run.split("*"); return Array(+count).fill(+n); });

export class Game {
  constructor(pack, mapName = pack.start.split("/")[0], facts = []) {
    this.pack = pack;
    this.map = pack.maps.find(map => map.name === mapName);
    this.facts = new Set(facts);
    this.world = new World({ gravity: Vec2(0, -10) });
    this.ground = this.makeGround();
  }

  // The ground as it is while just these facts hold. Facts that do not shape it are not in any variant's list.
  merge() {
    const variants = this.map.variants ?? [], shaping = new Set(variants.flatMap(variant => variant.facts));
    const held = [...this.facts].filter(fact => shaping.has(fact));
    return held.length === 0 ? this.map.merge : variants.find(variant => isSame(variant.facts, held)).merge;
  }

  // One body for each barrier: its chains are edges, which have no seams.
  makeGround() {
    const { groups, surfaces } = this.merge(), bodies = [];
    for (const group of groups.filter(one => one.barrier !== "" && one.storey === "ground")) {
      const body = this.world.createBody({ type: "static", userData: group }), bits = this.pack.contacts.barriers[group.barrier];
      for (const chain of group.chains)
        body.createFixture(new Chain(chain.points.map(([x, y]) => Vec2(x, y)), chain.closed), {
          friction: surfaces[chain.surfaces[0]].friction ?? 0.8, filterCategoryBits: bits.category, filterMaskBits: bits.mask });
      bodies.push(body);
    }
    return bodies;
  }

  setFact(fact) {
    this.facts.add(fact);
    const before = this.ground;
    this.ground = this.makeGround();               // the new ground first, so that nothing falls in between
    for (const body of before) this.world.destroyBody(body);
    for (let body = this.world.getBodyList(); body; body = body.getNext()) body.setAwake(true);
  }

  object(name) { return this.map.objects.find(one => one.name === name); }

  // A body of a mover whose position is at a place, with its shape and its bits.
  addMover(name, [x, y]) {
    const mover = this.pack.movers.find(one => one.name === name), bits = this.pack.contacts.movers[name];
    const body = this.world.createBody({ type: "dynamic", position: Vec2(x, y), fixedRotation: true, userData: mover });
    for (const region of mover.body)               // px with y down, from the mover's position
      body.createFixture(new Polygon(region.outline.map(([px, py]) => Vec2(px / this.pack.per_metre, -py / this.pack.per_metre))),
        { density: 1, friction: 0.2, filterCategoryBits: bits.category, filterMaskBits: bits.mask });
    return body;
  }

  // A platform, by its place, size and angle: clockwise in the pack, the other way round in an engine with y up.
  addPlatform(object) {
    const [x, y] = object.placed.middle, [width, height] = object.placed.size;
    const body = this.world.createBody({ type: "kinematic", position: Vec2(x, y), angle: -object.turn * Math.PI / 180 });
    body.createFixture(new Box(width / 2, height / 2), { friction: 0.8 });
    return body;
  }

  // The objects that a body is inside of and that fire on `enter`: what they give holds from now on.
  touchTriggers(body, mover) {
    const { x, y } = body.getPosition(), fired = [];
    for (const object of this.map.objects)
      if (object.fires === "enter" && object.by.includes(mover) && object.needs.every(fact => this.facts.has(fact)))
        for (const { outline } of object.placed.area)
          if (new Polygon(outline.map(p => Vec2(...p))).testPoint({ p: Vec2(0, 0), q: { s: 0, c: 1 } }, Vec2(x, y))) {
            fired.push(object.name);
            for (const fact of object.gives) if (!this.facts.has(fact)) this.setFact(fact);
          }
    return fired;
  }

  step(seconds) { for (let t = 0; t < seconds; t += 1 / 60) this.world.step(1 / 60); }

  // What a saved game holds, as schema/changes.schema.json says; a game in C++ reads it too.
  save() {
    return { format: "dryground/changes/1", pack: this.pack.hash, map: this.map.name, facts: [...this.facts].sort(), tiles: [],
      fired: [], removed: [] };
  }
  static load(pack, saved) { return new Game(pack, saved.map, saved.facts); }
}
