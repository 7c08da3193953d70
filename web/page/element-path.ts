/** Child indices from the root element, elements only, parted by slashes: as outline paths are written. */
export function pathTo(element: Element): string {
  const steps: number[] = [];
  for (let here = element; here.parentElement; here = here.parentElement)
    steps.unshift([...here.parentElement.children].indexOf(here));
  return steps.join('/');
}
