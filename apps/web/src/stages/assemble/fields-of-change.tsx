import type { Edit, EditKind, EditOf } from '@zest/core/lesson';
import { WholeField } from '../../ui/fields.tsx';
import type { FollowSource } from './FollowPerformer.tsx';

export interface FieldsProps<K extends EditKind> {
  edit: EditOf<K>;
  takes: readonly (readonly [string, string])[];
  /** The footage of the block; null when it has none. */
  source: FollowSource | null;
  onChange: (edit: Edit) => void;
}

const PERCENT = { min: 0, max: 100 };

/** Thousandths of the frame, as percent. */
export function PartField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number;
  onChange: (value: number) => void;
}) {
  return (
    <WholeField
      label={label}
      value={Math.round(value / 10)}
      range={PERCENT}
      onChange={(part) => onChange(part * 10)}
      sx={{ width: 104 }}
    />
  );
}
