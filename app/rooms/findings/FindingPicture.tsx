import { experimentalNoun, measuredPer } from '~core/plan/sharing';
import type { Finding } from '~core/account/finding';
import type { Plan } from '~core/model/plan';
import { findingPicture } from '~core/picture/findingPicture';
import type { Lane } from '~core/picture/marks';
import { planIndex } from '~core/plan/planIndex';
import { pictureCaption } from '~core/report/pictureCaption';
import { Picture } from '../../ui/pictures/Picture';
import { usePictureRoom } from '../../ui/pictures/usePictureRoom';

interface Props {
  plan: Plan;
  finding: Finding;
  lanes: Lane[];
  /** nothing marks the control: names are hidden, or equals are compared */
  unmarked: boolean;
  title: string;
}

/** The finding drawn, the picture the review has too. */
export function FindingPicture({ plan, finding, lanes, unmarked, title }: Props) {
  const unitNoun = experimentalNoun(plan);
  const picture = { finding, lanes, unitNoun, unmarked, per: measuredPer(plan) };
  return (
    <Picture
      drawing={findingPicture(picture, usePictureRoom())}
      label={title}
      file={`${plan.code} ${finding.trait.name}`}
      caption={pictureCaption(picture)}
    />
  );
}

/** Lanes of the contenders that are in a finding. */
export const lanesIn = (plan: Plan, ids: readonly string[]): Lane[] =>
  ids.map((id) => ({
    id,
    name: planIndex(plan).treatment(id)?.name ?? id,
    index: planIndex(plan).treatmentOrder(id),
  }));
