import type { KindCode } from '@avrelle/core/key';

export type SourceKey = 'marsh' | 'pegs' | 'packet' | 'creek' | 'keeper' | 'lavender' | 'lagoon' | 'dredger' | 'sluice' | 'report' | 'booklet' | 'walk' | 'readings' | 'dawn' | 'thread';
export type AudienceKey = 'me' | 'A' | 'B' | 'AB';

export interface DemoMark {
  readonly source: SourceKey;
  readonly by: string;
  readonly kind: KindCode;
  /** The passage, word for word. */
  readonly quote: string;
  readonly note?: string;
  readonly tags?: string;
  readonly for: AudienceKey;
  readonly daysAgo: number;
  readonly replies?: readonly (readonly [by: string, note: string])[];
}

type More = Partial<Pick<DemoMark, 'note' | 'tags' | 'replies'>>;
const mark = (source: SourceKey, by: string, kind: KindCode, audience: AudienceKey, daysAgo: number, quote: string, note?: string, tags?: string, replies?: More['replies']): DemoMark =>
  ({ source, by, kind, for: audience, daysAgo, quote, ...(note ? { note } : {}), ...(tags ? { tags } : {}), ...(replies ? { replies } : {}) });

export const MARKS: readonly DemoMark[] = [
  // The Marsh That Walks Inland
  mark('marsh', 'ines', 'claim', 'B', 6, 'A salt marsh keeps its height above the tide only by catching mud', 'Main claim. Everything after is about whether 3 mm is enough.', 'accretion'),
  mark('marsh', 'tomas', 'evidence', 'B', 5, 'Between 1994 and 2024 the gauge at Cobb’s Hard recorded a rise of 117 mm', '117 mm in 30 years is 3.9 mm a year, so “a little under four” holds. Pegs: 96 ⁄ 30 = **3.2**.', 'accretion', [['ines', 'Then the gap is 0.7 mm a year. Small, but it never stops.'], ['aldous', 'Good. Which of the two numbers is less certain, and why?'], ['tomas', 'The pegs, I think: forty-eight of them, but one reading a year. The gauge reads all day.']]),
  mark('marsh', 'priya', 'question', 'B', 5, 'it decides whether there will be a marsh at all', 'Does it? A thumb in thirty years. Why can the plants not just live a thumb lower?', '', [['luz', 'Each plant has its own height. See the zones in the peg handbook, table 2.']]),
  mark('marsh', 'ines', 'term', 'B', 4, 'levées', 'levée: a bank a creek builds beside itself.', 'words'),
  mark('marsh', 'priya', 'doubt', 'B', 4, 'the surface gains almost nothing', '“Almost nothing” – the table in the handbook says 1.1 mm for the lavender zone.', 'accretion', [['sten', 'And minus 1.3 for the pans. So “almost nothing” is the kind version.'], ['priya', 'Then the sentence hides two different things. I would mark it as a doubt all the same.']]),
  mark('marsh', 'ines', 'keep', 'me', 4, 'The marsh dies from the middle.', 'Last line for the essay?', 'essay/opening'),
  mark('marsh', 'kit', 'evidence', 'B', 3, 'cattle which had crossed them dry in their fathers’ time now sank to the hock', 'Evidence from 1911, and from a keeper who had no reason to exaggerate.', 'oral-history'),
  mark('marsh', 'hollis', 'question', 'AB', 3, 'the record has only one gap', 'Which year? The handbook says 2001, because of the cattle disease.', 'fieldwork', [['aldous', 'Yes. And some tables fill it in. How would you notice?']]),
  mark('marsh', 'aldous', 'claim', 'AB', 7, 'Nobody lives at the average, and neither does the glasswort.', 'This sentence is the whole of week four. Find the two numbers behind it before Friday.', 'week4'),
  mark('marsh', 'luz', 'claim', 'B', 3, 'A marsh lives by eating its own front.', 'So a marsh that loses its edge is not dying, it is having dinner.', '', [['greta', 'Until it runs out of front.'], ['luz', 'Fair.']]),
  mark('marsh', 'sten', 'evidence', 'B', 3, 'Within fifteen years the marsh behind the stone had sunk more than any other part.', 'Line E. Mean of 8 pegs. It is the best natural experiment we have.', 'sluices accretion'),
  mark('marsh', 'anneke', 'doubt', 'AB', 2, 'nobody has shown what share of it would have reached the marsh', 'The dredger letter now has a number: 6 in 100. One week, little wind.', 'dredging', [['ines', 'Enough for a claim?'], ['anneke', 'Enough for a question.']]),
  mark('marsh', 'ines', 'claim', 'B', 2, 'What saves it is room.', 'Shortest sentence, biggest claim. Everything on managed retreat hangs on it.', 'essay retreat'),
  mark('marsh', 'greta', 'evidence', 'AB', 2, 'On the eastern shore the strip between wall and water was ninety metres wide when the pegs were set. It is fifty-five now.', '35 m in 30 years. Same figure in the handbook, 5.2.', 'squeeze'),
  mark('marsh', 'tomas', 'question', 'B', 2, 'Hundred Acre', 'Why does nobody mention it? Who owns it?', '', [['aldous', 'Ask at the meeting. Politely.']]),
  mark('marsh', 'ines', 'doubt', 'me', 1, 'two of whom have not spoken since a matter of fencing in 1998', 'Funny, but is it in any source? Bram Oake says the same on the walk, without the year.', 'sluices'),
  mark('marsh', 'priya', 'keep', 'B', 1, 'To save the marsh we should have to drown the stonewort', 'The dilemma in one line.', 'essay'),
  mark('marsh', 'kit', 'claim', 'B', 1, 'A decision that hides its losses will be undone by whoever discovers them', 'Could be about anything, which makes me suspicious of it.', '', [['hollis', 'Gannet Point is the example. It is in the next half of the sentence.']]),
  mark('marsh', 'luz', 'term', 'B', 1, 'managed retreat', 'Giving up a line of defence on purpose, to get a better one.', 'words retreat'),
  mark('marsh', 'ines', 'keep', 'B', 0, 'That is the marsh, asking.', 'I went on Sunday. It is true about the ruts.', 'fieldwork', [['aldous', 'Write that down while it is wet.']]),
  mark('marsh', 'wim', 'note', 'B', 0, 'forty-eight brass rods', 'Read no. 9 last April. It stands in a pond.', 'fieldwork'),
  mark('marsh', 'cal', 'question', 'A', 3, 'in a quiet year, about three millimetres', 'And in a year with storms? More mud or less?', '', [['esme', 'More on the levées, I would guess.'], ['aldous', 'Do not guess. Line A, 2013 against 2014.']]),
  mark('marsh', 'esme', 'claim', 'A', 2, 'The river brings very little.', 'I had it the wrong way round all my life.', 'accretion'),
  mark('marsh', 'farid', 'doubt', 'A', 2, 'at a price that is about a third of what the stone at Gannet Point would cost today', 'Price of what year? And who pays the farmers?', 'retreat'),
  mark('marsh', 'jory', 'evidence', 'A', 1, 'would gain something like five millimetres of silt a year', 'His own estimate. On the back of a tide table.', 'sluices'),
  // Handbook
  mark('pegs', 'aldous', 'claim', 'AB', 8, 'A series for these pegs that runs across 2013 is two series, and must be drawn as two lines.', 'Exam question, every year. Every year somebody draws one line.', 'week4'),
  mark('pegs', 'tomas', 'term', 'B', 4, 'neap tides', 'Small range, near the half moon.', 'words'),
  mark('pegs', 'sten', 'evidence', 'B', 4, 'It sinks by two to four millimetres under its own weight, which is the whole of a year.', 'So a steel ruler would have invented a year of accretion. Or eaten one.', 'method'),
  mark('pegs', 'ines', 'claim', 'B', 3, 'The distribution has two humps', 'This is what the Review article means by “nobody lives at the average”.', 'accretion essay'),
  mark('pegs', 'ines', 'evidence', 'B', 3, 'The two that fall behind hold fifty-eight hundredths of the area.', 'Strongest single number for the essay.', 'accretion essay'),
  mark('pegs', 'priya', 'question', 'B', 3, 'The usual formula for the error of a slope therefore promises too much.', 'Because the years are not independent? Could somebody explain this to me slowly?', 'method', [['tomas', 'If the mud from last year is still there, this year’s reading is mostly last year’s reading again. So 30 readings are not 30 pieces of news.'], ['priya', 'That I understand. Thank you.']]),
  mark('pegs', 'hollis', 'keep', 'B', 2, 'Finally there is hope. In a year when everybody expects a rise, the rod is let down a little less.', 'Put this on the wall of the lab.', 'method'),
  mark('pegs', 'greta', 'doubt', 'AB', 2, 'Whether the sheep press the mud down or only eat what would have caught it', 'A fence round four pegs would answer that in five years.', 'fieldwork', [['aldous', 'Would you write the proposal?'], ['greta', 'Yes!']]),
  mark('pegs', 'ines', 'keep', 'me', 2, 'An empty field is a fact. A guess is not.', 'Motto.', 'essay/opening'),
  mark('pegs', 'luz', 'question', 'B', 1, 'Depth', 'So surface rise and land rise are not the same thing at all?', 'method'),
  mark('pegs', 'cal', 'evidence', 'A', 2, 'The cores show that the back marsh receives about one millimetre a year, and that the peat beneath it shrinks by two.', 'So mud does arrive. It just loses.', 'accretion'),
  mark('pegs', 'anneke', 'note', 'B', 1, 'peg 22', 'Found it. Boots did fill.', 'fieldwork'),
  // Packet
  mark('packet', 'kit', 'claim', 'B', 2, 'So the marsh is a sea defence that nobody pays for.', 'The economic argument in one sentence.', 'retreat'),
  mark('packet', 'ines', 'evidence', 'B', 2, 'where eighty metres of saltings lie before a wall, the wall can be a third lower for the same safety', 'Whose engineers? No source given.', 'squeeze essay', [['kit', 'Abel Corrie, a paragraph later. He writes the harbour letters, too.']]),
  mark('packet', 'luz', 'keep', 'B', 1, 'They come with a boat and a flag, and in the sixth year there is a man with a clipboard who has never heard of it.', 'Interview her?', 'oral-history'),
  mark('packet', 'wim', 'doubt', 'B', 1, 'other sources will be sought', 'Means: nobody knows.', 'retreat'),
  // Five drawings
  mark('creek', 'greta', 'evidence', 'B', 2, 'I counted thirty-one bands down to the water', 'Thirty-one summers. About the age of the pegs.', 'accretion'),
  mark('creek', 'ines', 'claim', 'B', 1, 'The water went from brown to clear within three paces of the edge', 'This is the levée being built, seen from a crate.', 'accretion', [['sten', 'And why the back marsh starves.']]),
  mark('creek', 'anneke', 'keep', 'B', 1, 'The first drawing is of what you know. By the fifth you have run out of that.', 'For the field diary.', 'method'),
  // The keeper
  mark('keeper', 'ines', 'evidence', 'B', 2, 'That step, as high as my hip, is the whole price of the gate, and it does not stand in any account.', 'Same point as the Packet: nobody’s books.', 'sluices oral-history'),
  mark('keeper', 'tomas', 'question', 'B', 1, 'I put down five millimetres of silt in a year, and I was careful.', 'Forty years for half the step: 20 cm. So the step is about 40 cm? My hip is at 95.', 'sluices', [['priya', 'Silt settles. Or Bram Oake is short.'], ['aldous', 'Measure the step, not the keeper.']]),
  mark('keeper', 'luz', 'keep', 'B', 1, 'You cannot carry a marsh in a bucket.', undefined, 'essay'),
  // Sea-lavender, Ines's own
  mark('lavender', 'ines', 'claim', 'me', 5, 'Every plant on the marsh keeps an account of salt.', 'Nice frame: three ways of book-keeping.', 'plants'),
  mark('lavender', 'ines', 'term', 'me', 5, 'Glasswort', 'annual, stores salt, turns red in September', 'plants words'),
  mark('lavender', 'ines', 'evidence', 'me', 5, 'Eleven of them said "lavender" where there was already more glasswort than lavender.', 'We see last year. Compare the “hope” remark in the handbook.', 'plants method'),
  mark('lavender', 'ines', 'keep', 'me', 4, 'for what is, the plant; for how fast, the peg; for what will be, neither', 'Structure for the conclusion.', 'essay'),
  // Lagoon
  mark('lagoon', 'ines', 'claim', 'me', 3, 'Το λιβάδι κρατάει το ύψος του μόνο όσο πιάνει αυτή τη λάσπη.', 'Word for word the claim of the Review article, from another sea.', 'accretion'),
  mark('lagoon', 'ines', 'keep', 'me', 3, 'Σκέφτομαι συχνά το περιθώριο ενός βιβλίου.', 'The margin of a book and the margin of a coast.', 'essay'),
  // Sluice Nine: written on its first edition, which has changed since
  mark('sluice', 'ines', 'evidence', 'B', 10, 'every yard of it that we can leave lower saves us nine hundred', 'The only price per yard anywhere. Use it against the Packet’s 2.1 million.', 'retreat essay'),
  mark('sluice', 'ines', 'claim', 'B', 10, 'We would hold the gate open on the twelve highest tides of each year, beginning in March.', 'The plan in one line.', 'sluices'),
  mark('sluice', 'ines', 'keep', 'me', 9, 'It is in the wrong place for what we now want of it.', 'First sentence of the essay?', 'essay/opening'),
  mark('sluice', 'ines', 'question', 'B', 9, 'some thirty hours of salt water would lie on the lowest field', 'All at once, or an hour here and there?', 'sluices', [['tomas', 'Two to three hours a tide, I asked the keeper.']]),
  mark('sluice', 'tomas', 'claim', 'B', 9, 'a gate that is held open lets it in by the inch and takes the mud along', 'So the gate feeds the field.', 'accretion'),
  mark('sluice', 'kit', 'doubt', 'B', 8, 'half of it is moved to the pond at Upper Fleet, and the other half a year later if the first has lived', 'A year is one summer. What if it is a wet one?', 'plants'),
  mark('sluice', 'ines', 'term', 'B', 8, 'stonewort', 'An alga that looks like a plant; crusted with lime.', 'words plants'),
  mark('sluice', 'luz', 'keep', 'B', 7, 'the bad ones first', 'Every report should say this.', 'method'),
  // Dredger
  mark('dredger', 'ines', 'evidence', 'me', 1, 'about six parts in a hundred of the mud in the channel would settle on the marsh within a week', 'First measured number. One week, little wind.', 'dredging accretion'),
  mark('dredger', 'ines', 'question', 'me', 1, 'It would cost us less fuel, not more.', 'Then why has nobody done it?', 'dredging'),
  // The survey report, a PDF
  mark('report', 'aldous', 'claim', 'AB', 3, 'The marsh is not drowning everywhere.', 'Read the abstract twice. The second half of it is the report.', 'week5'),
  mark('report', 'ines', 'evidence', 'B', 2, 'The mean gain of all pegs in the year to April 2025 was 2.9 mm, against a mean of 3.2 mm in the thirty years before.', 'Within one quiet winter, they say. So it proves nothing, and they say that too.', 'accretion'),
  mark('report', 'tomas', 'doubt', 'B', 2, 'may be thirty years or sixty', 'A date with a factor of two in it. Is that still a date?', '', [['priya', 'It is a date for the order in which things happen.'], ['aldous', 'Good answer.']]),
  mark('report', 'sten', 'question', 'B', 1, 'what it did to the worms is not yet known', 'Who is counting them?', 'dredging'),
  mark('report', 'ines', 'keep', 'me', 1, 'It is what the present would come to if it went on.', 'For the essay. Best definition of a projection I have met.', 'essay'),
  mark('report', 'greta', 'term', 'AB', 1, 'pans', 'Pan: a pool on the flat of the marsh that does not drain.', 'words'),
  // The booklet, an EPUB
  mark('booklet', 'ines', 'keep', 'me', 2, 'It is for asking the mud a question before your foot does.', 'He talks exactly like this.', 'oral-history'),
  mark('booklet', 'ines', 'evidence', 'me', 2, 'The fields were marsh once and have not had a spoonful of mud since the bank was built.', 'Same as in the report, and shorter.', 'accretion sluices'),
  // The walk, a recording
  mark('walk', 'tomas', 'evidence', 'B', 2, 'A hundred and sixty years without mud, that is what you are looking at.', 'Recorded at the second stile.', 'oral-history'),
  mark('walk', 'aldous', 'question', 'B', 2, 'somebody else writes it down and does not argue', 'Why is that a rule? What would happen to the readings if they did argue?', 'method', [['ines', 'They would meet in the middle, and the two readings would not be two any more.']]),
  // The thread
  mark('thread', 'ines', 'doubt', 'me', 1, 'What do we call the surface?', 'If they do not agree on this, the series has a step in it.', 'method'),
];
