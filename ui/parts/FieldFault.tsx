import FormHelperText from '@mui/material/FormHelperText';

interface Props {
  /** What the field that it is of is described by. */
  readonly id: string;
  readonly fault: string | null;
  readonly right?: boolean;
}

/** Why a field's text was refused. */
export function FieldFault({ id, fault, right = false }: Props) {
  if (fault === null) return null;
  return (
    <FormHelperText id={id} error role="alert" sx={{ textAlign: right ? 'right' : 'left' }}>
      {fault}
    </FormHelperText>
  );
}
