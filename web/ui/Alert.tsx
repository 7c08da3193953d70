/** An error beside what caused it. */
export function Alert({ children }: { children: string | undefined | null }) {
  if (!children) return null;
  return (
    <p role="alert" className="border-l-[3px] border-brick py-0.5 pl-3 text-[14px] text-brick">
      {children}
    </p>
  );
}
