/** Beside an answer to an earlier search. */
export function StillShown({ asked }: { asked: string }) {
  return (
    <span role="status" className="text-brick">
      {asked ? (
        <>
          Still shown: <span className="font-mono text-[13px]">{asked}</span>
        </>
      ) : (
        'Still shown: everything'
      )}
    </span>
  );
}
