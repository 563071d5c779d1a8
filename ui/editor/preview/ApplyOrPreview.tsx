import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { usePreview } from './usePreview';

interface Props {
  readonly preview: ReturnType<typeof usePreview>;
  readonly label: string;
  readonly disabled?: boolean;
  readonly onApply: () => void;
}

export function PreviewButton({ preview }: Pick<Props, 'preview'>) {
  return <Button {...preview.button}>{preview.held ? 'Stop preview' : 'Preview'}</Button>;
}

/** Makes a proposal an edit, or shows it in the path first. */
export function ApplyOrPreview({ preview, label, disabled = false, onApply }: Props) {
  const apply = (): void => {
    preview.end();
    onApply();
  };
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, mt: 0.5 }}>
      <Button color="primary" disabled={disabled} onClick={apply}>
        {label}
      </Button>
      <PreviewButton preview={preview} />
    </Box>
  );
}
