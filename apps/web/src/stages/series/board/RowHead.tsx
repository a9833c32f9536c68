interface RowHeadProps {
  name: string;
  /** What more it says of itself, below its name. */
  below?: string;
  isOpen: boolean;
  onOpen: () => void;
}

/** The head of a row, which opens it at the side. */
export function RowHead({ name, below, isOpen, onOpen }: RowHeadProps) {
  return (
    <th scope="row">
      <button type="button" className="series-head" aria-pressed={isOpen} onClick={onOpen}>
        <span>{name}</span>
        {below && <small>{below}</small>}
      </button>
    </th>
  );
}
