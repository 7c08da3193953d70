import { createContext, useContext } from 'react';
import type { AnnotationId, Question } from '@avrelle/core/wire';

/** The questions on what is read, by the notes that ask them. */
export const QuestionsContext = createContext<ReadonlyMap<AnnotationId, Question>>(new Map());
export const useQuestion = (id: AnnotationId): Question | undefined => useContext(QuestionsContext).get(id);
