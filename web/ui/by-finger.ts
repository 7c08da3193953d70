/** Whether what points at this window is a finger first of all: rows are as high as one then (WCAG 2.2, 2.5.5). */
export const isByFinger = (): boolean => matchMedia('(pointer: coarse)').matches;
