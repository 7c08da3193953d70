import type { AnnotationId } from '@avrelle/core/wire';
import { lazy, Suspense, type ReactNode } from 'react';
import Markdown, { defaultUrlTransform, type Components } from 'react-markdown';
import { Link } from 'react-router';
import remarkBreaks from 'remark-breaks';
import { parseLinkAddress } from '@avrelle/core/note';
import { hrefOf, pictureAddress } from './note-links';

/** Formulas are set by a library of their own, loaded for notes that have some. */
const FormulaText = lazy(() => import('./FormulaText'));

interface Props {
  readonly children: string;
  /** Follows a link to an annotation of the source at hand without leaving it; false where it leads elsewhere. */
  onFollow?: ((annotationId: AnnotationId) => boolean) | undefined;
}

/** A note's Markdown. Raw HTML in it stays text; links within Avrelle lead there, others open beside it. */
export default function NoteText({ children, onFollow }: Props) {
  const components = componentsFor(onFollow);
  const plain = (
    <Markdown remarkPlugins={[remarkBreaks]} urlTransform={allowed} components={components}>
      {children}
    </Markdown>
  );
  return (
    <div dir="auto" className="prose-note">
      {children.includes('$') ? (
        <Suspense fallback={plain}>
          <FormulaText components={components} urlTransform={allowed}>
            {children}
          </FormulaText>
        </Suspense>
      ) : (
        plain
      )}
    </div>
  );
}

const allowed = (address: string): string => (parseLinkAddress(address) ? address : defaultUrlTransform(address));

function componentsFor(onFollow: Props['onFollow']): Components {
  return {
    a: ({ href = '', children }) => (
      <NoteLink written={href} onFollow={onFollow}>
        {children}
      </NoteLink>
    ),
    img: ({ src, alt }) => {
      const at = typeof src === 'string' ? pictureAddress(src) : undefined;
      return at ? (
        <a href={at} target="_blank" rel="noreferrer">
          <img src={at} alt={alt ?? ''} className="my-1 max-h-[260px] max-w-full" />
        </a>
      ) : (
        <span>{alt}</span>
      );
    },
  };
}

function NoteLink({
  written,
  onFollow,
  children,
}: {
  written: string;
  onFollow: Props['onFollow'];
  children?: ReactNode;
}) {
  const link = parseLinkAddress(written);
  const href = hrefOf(written);
  if (link?.type === 'person') return <span className="font-semibold text-tide">{children}</span>;
  if (!href) return <span>{children}</span>;
  if (!link)
    return (
      <a href={href} target="_blank" rel="noreferrer noopener">
        {children}
      </a>
    );
  return (
    <Link
      to={href}
      onClick={(e) => {
        if (link.type === 'annotation' && onFollow?.(link.id)) e.preventDefault();
      }}
    >
      {children}
    </Link>
  );
}
