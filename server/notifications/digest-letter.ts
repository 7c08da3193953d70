import { Liquid } from 'liquidjs';
import { leftOf } from '@avrelle/core/class';
import { noticeAbout, noticePath, noticeWords } from '@avrelle/core/notification';
import type { DeskNotice } from '@avrelle/core/wire';
import type { DigestContents } from './digest-contents';

/** So many of what is new are told one by one. */
const MOST = 30;

const liquid = new Liquid({ outputEscape: 'escape', strictVariables: true });
const plain = new Liquid({ strictVariables: true });

const TEXT = plain.parse(`Hello {{ name }},
{% if due.size > 0 %}
Due soon, and not done yet

{% for d in due -%}
* {{ d.title }} ({{ d.class }}), {{ d.when }}
  Still missing: {{ d.left }}
  {{ d.address }}

{% endfor %}{% endif %}{% if asking.size > 0 or news.size > 0 %}
New for you

{% for a in asking -%}
* {{ a.words }} {{ a.class }}
  {{ a.address }}

{% endfor %}{% for n in news -%}
* {{ n.actor }} {{ n.did }}{% if n.class %} ({{ n.class }}){% endif %}
{%- for line in n.words %}
  {{ line }}
{%- endfor %}
  {{ n.about }}
  {{ n.address }}

{% endfor %}{% endif %}{% if more > 0 %}
And {{ more }} more on your Desk: {{ desk }}
{% endif %}
-- 
You get this mail because you chose to. Choose anew: {{ settings }}
No more mails: {{ stop }}
`);

/** Mail programs heed few styles, and those only where they stand; without any, it reads well all the same. */
const LINK = 'style="color:#0e5a60"';
const HEADING = 'style="font-size:17px;border-bottom:1px solid #b9b29c"';
const HTML = liquid.parse(`<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>{{ subject }}</title></head>
<body style="margin:0;padding:24px;background:#f7f4ec;color:#1c2a2b;font:16px/1.5 Georgia,serif">
<div style="max-width:560px;margin:0 auto">
<p style="color:#0e5a60;font-size:22px;font-style:italic;font-weight:bold;margin:0 0 16px">Avrelle</p>
<p>Hello {{ name }},</p>
{% if due.size > 0 %}
<h2 ${HEADING}>Due soon, and not done yet</h2>
{% for d in due %}
<p><a href="{{ d.address }}" ${LINK}>{{ d.title }}</a> ({{ d.class }}), {{ d.when }}<br>
Still missing: {{ d.left }}</p>
{% endfor %}
{% endif %}
{% if asking.size > 0 or news.size > 0 %}
<h2 ${HEADING}>New for you</h2>
{% for a in asking %}
<p><a href="{{ a.address }}" ${LINK}>{{ a.words }}</a> {{ a.class }}</p>
{% endfor %}
{% for n in news %}
<p><b>{{ n.actor }}</b> {{ n.did }}{% if n.class %} ({{ n.class }}){% endif %}<br>
{% for line in n.words %}{{ line }}<br>{% endfor %}
<a href="{{ n.address }}" ${LINK}><i>{{ n.about }}</i></a></p>
{% endfor %}
{% endif %}
{% if more > 0 %}
<p>And {{ more }} more, <a href="{{ desk }}" ${LINK}>on your Desk</a>.</p>
{% endif %}
<p style="border-top:1px solid #b9b29c;padding-top:12px;font-size:14px">
You get this mail because you chose to.
<a href="{{ settings }}" ${LINK}>Choose anew</a> ·
<a href="{{ stop }}" ${LINK}>No more mails</a></p>
</div></body></html>
`);

export interface Letter {
  readonly subject: string;
  readonly text: string;
  readonly html: string;
}

interface Around {
  readonly name: string;
  readonly zone: string;
  /** Of Avrelle; addresses in the letter begin with it. */
  readonly origin: string;
  /** At which the mails end. */
  readonly stop: string;
}

/** What has happened, in words, as plain text and as HTML. */
export function digestLetter({ due, asking, notices }: DigestContents, { name, zone, origin, stop }: Around): Letter {
  const clock = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    weekday: 'long',
    hour: '2-digit',
    minute: '2-digit',
  });
  const words = {
    name,
    subject: subjectOf(due.length, asking.length + notices.length),
    desk: `${origin}/desk`,
    settings: `${origin}/notifications`,
    stop,
    due: due.map((set) => ({
      title: set.source.title,
      class: set.class.name,
      when: clock.format(new Date(set.myDueAt!)),
      left: leftOf(set),
      address: `${origin}/source/${set.source.id}`,
    })),
    asking: asking.map(({ class: c, people }) => ({
      words: `${people === 1 ? '1 person asks' : `${people} people ask`} to join`,
      class: c.name,
      address: `${origin}/classes/${c.id}/joining`,
    })),
    news: notices.slice(0, MOST).map((notice) => ({
      ...noticeWords(notice),
      class: notice.class?.name ?? null,
      ...linesOf(notice),
      address: origin + noticePath(notice),
    })),
    more: Math.max(0, notices.length - MOST),
  };
  return { subject: words.subject, text: plain.renderSync(TEXT, words), html: liquid.renderSync(HTML, words) };
}

/** "1 due soon, 3 new for you". */
const subjectOf = (due: number, fresh: number): string =>
  [due > 0 ? `${due} due soon` : '', fresh > 0 ? `${fresh} new for you` : ''].filter(Boolean).join(', ');

/** What was written, and what it is about, in the same words never twice. */
function linesOf(notice: DeskNotice): { readonly words: readonly string[]; readonly about: string } {
  const { words, about } = noticeAbout(notice);
  return {
    words: words === about ? [] : words.split('\n').filter(Boolean),
    about: about || (notice.class?.name ?? ''),
  };
}
