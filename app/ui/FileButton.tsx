import { useRef } from 'react';
import Button, { type ButtonProps } from '@mui/material/Button';

interface Props {
  label: string;
  accept: string;
  onFiles: (files: File[]) => void | Promise<void>;
  testId?: string;
  multiple?: boolean;
  /** a phone opens its camera, the one that looks away from the user */
  camera?: boolean;
  variant?: ButtonProps['variant'];
  color?: ButtonProps['color'];
  disabled?: boolean;
}

/** A button that asks for files; the same one can be chosen twice in a row. */
export function FileButton({
  label,
  accept,
  onFiles,
  testId,
  multiple = false,
  camera = false,
  variant = 'contained',
  color,
  disabled,
}: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button variant={variant} color={color} disabled={disabled} onClick={() => input.current?.click()}>
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        multiple={multiple}
        capture={camera ? 'environment' : undefined}
        hidden
        data-testid={testId}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = '';
          if (files.length > 0) void onFiles(files);
        }}
      />
    </>
  );
}
