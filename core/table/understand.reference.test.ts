// R's own data sets as people would have them, written by R (datasets, R 4): what each column is, and figures as R finds them.
import { beforeAll, describe, expect, it } from 'vitest';
import { type R, startR } from '../testing/r';
import { findingsOfTable } from './findingsOfTable';
import { gridOf } from './sheet';
import { understand } from './understand';

let r: R;
beforeAll(async () => {
  r = await startR();
});
const table = async (code: string) =>
  (await r.texts(`paste(capture.output(write.csv(${code}, row.names = FALSE)), collapse = '\\n')`))[0]!;
async function read(code: string, named = {}) {
  const made = understand(gridOf(await table(code)), named);
  if (!made.ok) throw new Error(made.error.text);
  return made.value;
}

describe('read without help', () => {
  it.each([
    ['PlantGrowth', 'ctrl', 'weight:response group:treatment'],
    ['InsectSprays', null, 'count:response spray:treatment'],
    ['OrchardSprays', null, 'decrease:response rowpos:block colpos:block treatment:treatment'],
    ['ToothGrowth', null, 'len:response supp:treatment dose:ignored'],
    ['ChickWeight', null, 'weight:response Time:day Chick:unit Diet:treatment'],
    ['sleep', null, 'extra:response group:treatment ID:block'],
    ['CO2', null, 'Plant:unit Type:ignored Treatment:treatment conc:ignored uptake:response'],
  ])('%s', async (name, control, columns) => {
    const u = await read(name);
    expect(u.control).toBe(control);
    expect(u.columns.map((c) => `${c.name}:${c.role}`).join(' ')).toBe(columns);
  });
  it.each([
    ['npk', 'N or P or K'],
    ['warpbreaks', 'wool or tension'],
    ['esoph', 'agegp or alcgp or tobgp'],
  ])('%s has more than one thing that was varied, and says so', async (name, which) => {
    const made = understand(gridOf(await table(name)));
    expect(made.ok ? '' : made.error.text).toContain(`It may be ${which}`);
  });
});

describe('found as R finds it', () => {
  const whole = async (code: string, named = {}) =>
    findingsOfTable(await read(code, named)).find((f) => f.round === null)!;
  it('two groups: Welch’s t test (ToothGrowth, its degrees of freedom to four figures), and within pairs (sleep)', async () => {
    const tooth = await whole('ToothGrowth', { control: 'VC' });
    const [p, low, high] = await r.numbers(
      "{t <- t.test(len ~ relevel(supp, 'OJ'), ToothGrowth); c(t$p.value, t$conf.int)}",
    );
    expect(tooth.versusControl[0]).toMatchObject({ name: 'OJ', difference: expect.closeTo(3.7, 10) });
    expect(tooth.versusControl[0]!.p).toBeCloseTo(p!, 4);
    expect(tooth.versusControl[0]!.low).toBeCloseTo(low!, 2);
    expect(tooth.versusControl[0]!.high).toBeCloseTo(high!, 2);
    const sleep = await whole('sleep', { control: '1' });
    const [paired] = await r.numbers(
      'with(sleep, t.test(extra[group == 2], extra[group == 1], paired = TRUE)$p.value)',
    );
    expect(sleep.versusControl[0]!.p).toBeCloseTo(paired!, 8);
  });
  it('means of groups, and of units where lines are samples', async () => {
    const plants = await whole('PlantGrowth');
    const [one, two] = await r.numbers('with(PlantGrowth, tapply(weight, group, mean)[2:3] - mean(weight[group == "ctrl"]))'); // prettier-ignore
    expect(plants.versusControl.map((c) => c.difference)).toEqual([
      expect.closeTo(one!, 10),
      expect.closeTo(two!, 10),
    ]);
    const co2 = await whole('CO2');
    const [chilled] = await r.numbers(
      '{u <- aggregate(uptake ~ Plant + Treatment, CO2, mean); diff(tapply(u$uptake, u$Treatment, mean))}',
    );
    expect(co2.versusControl[0]!.difference).toBeCloseTo(chilled!, 10);
    // Six plants of each, not forty-two lines.
    const [p] = await r.numbers(
      '{u <- aggregate(uptake ~ Plant + Treatment, CO2, mean); t.test(uptake ~ Treatment, u, var.equal = TRUE)$p.value}',
    );
    expect(co2.versusControl[0]!.p).toBeCloseTo(p!, 8);
  });
  it('wide as long: PlantGrowth with a column for each group', async () => {
    const wide = await whole('as.data.frame(split(PlantGrowth$weight, PlantGrowth$group))');
    expect(wide.versusControl).toEqual((await whole('PlantGrowth')).versusControl);
  });
  it('what a factor that is named finds, in its blocks (npk)', async () => {
    const npk = await whole('npk', { treatment: 'N', control: '0', response: 'yield' });
    const [difference] = await r.numbers('with(npk, diff(tapply(yield, N, mean)))');
    expect(npk.versusControl[0]!.difference).toBeCloseTo(difference!, 10);
  });
});
