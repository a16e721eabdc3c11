import Button from '@mui/material/Button';

interface Props {
  yes: string;
  no: string;
  /** left out: it can't be answered so */
  onYes?: (() => void) | undefined;
  onNo: () => void;
}

/** The end of a line that asks for a word: one answer that does something, one that leaves it. */
export function TwoAnswers({ yes, no, onYes, onNo }: Props) {
  return (
    <td className="n">
      {onYes && (
        <Button size="small" color="secondary" onClick={onYes}>
          {yes}
        </Button>
      )}
      <Button size="small" color="inherit" onClick={onNo}>
        {no}
      </Button>
    </td>
  );
}
