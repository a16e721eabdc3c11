import { EyeAnswer } from '~core/eye/record';
import { bench } from './bench';

/** Answers lie among the settings of the bench, one a row; they leave it as a table of their own. */
const PREFIX = 'eye/';

/** Every case that was answered on this bench, the oldest first. What can’t be read isn’t counted. */
export async function eyeAnswers(): Promise<EyeAnswer[]> {
  const rows = await (await bench()).settings.where('key').startsWith(PREFIX).toArray();
  return rows
    .flatMap(({ value }) => {
      const read = EyeAnswer.safeParse(JSON.parse(value));
      return read.success ? [read.data] : [];
    })
    .sort((a, b) => a.at.localeCompare(b.at));
}

export async function keepEyeAnswer(answer: EyeAnswer): Promise<void> {
  await (await bench()).settings.put({ key: `${PREFIX}${answer.id}`, value: JSON.stringify(answer) });
}
