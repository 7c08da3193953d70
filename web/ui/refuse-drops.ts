/**
 * A file dropped where nothing takes it would open in place of the page, and what was being written would go with it:
 * in this window or frame it is refused. Whoever takes files says so before it comes here, or sets the effect after it.
 */
export function refuseDrops(window: Window): void {
  window.addEventListener('dragover', (event) => {
    if (event.defaultPrevented || !event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    event.dataTransfer.dropEffect = 'none';
  });
}
