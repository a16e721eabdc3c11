import type { CardHeading } from '~core/model/judgement';
import { newId } from '~core/model/newId';
import { type Plan, kindOf } from '~core/model/plan';
import type { PanelFigures } from '~core/scorecard/cardSource';

/** Headings that can be added, by what their points are made from. */
export function addableHeadings(
  plan: Plan,
  panels: readonly PanelFigures[],
): { key: string; name: string; heading: () => CardHeading }[] {
  const counted = plan.traits.filter((t) => kindOf(t).observes !== 'words');
  const id = () => newId<string>();
  return [
    ...counted.map((t) => ({
      key: `trait-${t.id}`,
      name: t.name,
      heading: (): CardHeading => ({
        id: id(),
        name: t.name,
        weight: 20,
        from: { kind: 'trait', traitId: t.id },
      }),
    })),
    ...counted
      .filter((t) => kindOf(t).observes === 'continuous')
      .map((t) => ({
        key: `even-${t.id}`,
        name: `Evenness of ${t.name.toLowerCase()}`,
        heading: (): CardHeading => ({
          id: id(),
          name: `Evenness, ${t.name.toLowerCase()}`,
          weight: 10,
          from: { kind: 'evenness', traitId: t.id },
        }),
      })),
    ...panels.map((p) => ({
      key: `panel-${p.sessionId}-${p.thing}`,
      name: `Panel: ${p.name}`,
      heading: (): CardHeading => ({
        id: id(),
        name: p.thing,
        weight: 20,
        from: { kind: 'panel', sessionId: p.sessionId, thing: p.thing },
      }),
    })),
    {
      key: 'cost',
      name: 'Low cost',
      heading: () => ({ id: id(), name: 'Low cost', weight: 20, from: { kind: 'cost' } }),
    },
    {
      key: 'own',
      name: 'My own points (ease, looks, taste …)',
      heading: () => ({ id: id(), name: 'Ease of use', weight: 10, from: { kind: 'own', points: {} } }),
    },
  ];
}
