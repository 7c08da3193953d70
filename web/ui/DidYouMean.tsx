interface Props {
  /** The search with its words as they are probably meant; undefined where nothing is. */
  readonly meant: string | undefined;
  onMeant(q: string): void;
}

/** Before what is said where nothing was found. */
export function DidYouMean({ meant, onMeant }: Props) {
  if (meant === undefined) return null;
  return (
    <>
      Did you mean{' '}
      <button className="act" onClick={() => onMeant(meant)}>
        {meant}
      </button>
      ?{' '}
    </>
  );
}
