import { useSession } from '../../session/reader-context';
import { useTools } from '../../session/tools-context';
import { Strip } from './Strip';
import { RATES } from '../../session/use-listening';

/** While the source is read aloud. */
export function ListenBar() {
  const { language } = useSession().source;
  const { aloud: listening } = useTools();
  const { voices, voice, failed, paused, rate } = listening;
  const onClose = (): void => listening.listen(false);
  if (failed)
    return (
      <Strip>
        <span role="status" className="flex-1">
          {failed === 'language'
            ? `Neither this browser nor Avrelle has a voice for ${nameOf(language)}. Add one in the settings of the device.`
            : 'The voice could not be loaded. See whether you are online, then press Listen again.'}
        </span>
        <button className="act" onClick={onClose}>
          Close
        </button>
      </Strip>
    );
  return (
    <Strip>
      <button className="press min-w-[84px]" onClick={listening.pause}>
        {paused ? 'Go on' : 'Pause'}
      </button>
      <button className="act" onClick={() => listening.go(-1)}>
        Previous sentence
      </button>
      <button className="act" onClick={() => listening.go(1)}>
        Next sentence
      </button>
      <button
        className="text-soft hover:text-ink"
        title="Speed"
        onClick={() => listening.setRate(RATES[(RATES.findIndex((r) => r === rate) + 1) % RATES.length]!)}
      >
        {rate} ×
      </button>
      {voices && voices.length > 1 && (
        <label className="text-soft">
          Voice{' '}
          <select
            className="field !w-auto text-ink"
            value={voice?.name}
            onChange={(e) => listening.setVoice(e.target.value)}
          >
            {voices.map((v) => (
              <option key={v.name} value={v.name}>
                {v.name}
              </option>
            ))}
          </select>
        </label>
      )}
      <button className="ml-auto text-soft hover:text-ink" onClick={onClose}>
        Stop
      </button>
    </Strip>
  );
}

function nameOf(language: string): string {
  try {
    return new Intl.DisplayNames('en', { type: 'language' }).of(language || 'en') ?? language;
  } catch {
    return `the language “${language}”`;
  }
}
