import { RankList } from '../../ui/RankList';
import { type Ranked, orderOf, ranksOf } from '../../ui/ranked';
import type { TasterAnswer, TasterSheet } from './tasterSheet';

const questionOf = ({ session }: TasterSheet): string => {
  switch (session.kind) {
    case 'triangle':
      return 'Two are the same. Which is the odd one?';
    case 'duo-trio':
      return 'Which of the two is like the first?';
    default:
      return session.asked;
  }
};

interface SetProps {
  sheet: TasterSheet;
  cups: readonly string[];
  value: TasterAnswer;
  onChange: (part: Partial<TasterAnswer>) => void;
  pictures: ReadonlyMap<string, string> | undefined;
}

/** Samples to choose from, or to put in order. */
export function SetQuestion({ sheet, cups, value, onChange, pictures }: SetProps) {
  const picture = (code: string) =>
    pictures?.get(code) && <img className="taster-picture" src={pictures.get(code)} alt={`Sample ${code}`} />;
  if (sheet.session.kind === 'ranking') {
    const order = orderOf(cups, (id) => value.ranks.find((r) => r.code === id)?.rank);
    return (
      <>
        <h1 id="sample" tabIndex={-1}>
          {questionOf(sheet)}
        </h1>
        <RankList
          label={questionOf(sheet)}
          order={order}
          onOrder={(to: Ranked[]) =>
            onChange({ ranks: ranksOf(to).map((r) => ({ code: r.id, rank: r.rank })) })
          }
          nameOf={(id) => id}
          face={(id) => (
            <>
              <strong className="taster-small-code">{id}</strong>
              {picture(id)}
            </>
          )}
        />
      </>
    );
  }
  const first = sheet.session.kind === 'duo-trio' ? cups[0] : undefined;
  return (
    <>
      <h1 id="sample" tabIndex={-1}>
        {questionOf(sheet)}
      </h1>
      {first && (
        <p>
          The first: <strong className="taster-small-code">{first}</strong>
          {picture(first)}
        </p>
      )}
      <div className="taster-choices">
        {cups
          .filter((c) => c !== first)
          .map((code) => (
            <button
              type="button"
              key={code}
              className="taster-step taster-choice"
              aria-pressed={value.chosen === code}
              onClick={() => onChange({ chosen: code })}
            >
              {code}
              {picture(code)}
            </button>
          ))}
      </div>
    </>
  );
}
