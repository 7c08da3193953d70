import type { ComponentType } from 'react';
import { matchPath } from 'react-router';
import { lazily } from './ui/lazily';

const page = (path: string, load: () => Promise<{ default: ComponentType }>) => ({ path, Page: lazily(load) });

export const PAGES = [
  page('/desk', () => import('./desk/DeskPage')),
  page('/library', () => import('./library/LibraryPage')),
  page('/library/deleted', () => import('./library/DeletedPage')),
  page('/collection/:id', () => import('./library/CollectionPage')),
  page('/topic', () => import('./library/TopicPage')),
  page('/work-through', () => import('./library/WorkThroughPage')),
  page('/gather', () => import('./gather/GatherPage')),
  page('/look/:id', () => import('./gather/LookPage')),
  page('/source/:id', () => import('./reader/ReaderPage')),
  page('/source/:id/changes', () => import('./changes/ChangesPage')),
  page('/source/:id/picture', () => import('./picture/PicturePage')),
  page('/to/:type/:id', () => import('./note/LeadPage')),
  page('/find', () => import('./find/FindPage')),
  page('/source/:id/note', () => import('./notes/SourceNotePage')),
  page('/notes', () => import('./notes/NotesPage')),
  page('/notes/:id', () => import('./notes/NotesPage')),
  page('/review', () => import('./review/ReviewPage')),
  page('/review/cards', () => import('./review/CardsPage')),
  page('/review/statistics', () => import('./review/StatisticsPage')),
  page('/classes', () => import('./classes/ClassesPage')),
  page('/classes/:id', () => import('./classes/ClassPage')),
  page('/classes/:id/set', () => import('./classes/set/SetReadingPage')),
  page('/classes/:id/set/:sourceId', () => import('./classes/set/SetReadingPage')),
  page('/classes/:id/discussion', () => import('./classes/discussion/DiscussionPage')),
  page('/classes/:id/questions', () => import('./classes/questions/QuestionsPage')),
  page('/classes/:id/cards', () => import('./classes/cards/ClassCardsPage')),
  page('/classes/:id/walkthroughs', () => import('./walkthrough/WalkthroughsPage')),
  page('/classes/:id/walkthroughs/:walkthroughId', () => import('./walkthrough/WalkthroughPage')),
  page('/classes/:id/walkthroughs/:walkthroughId/walk', () => import('./walkthrough/WalkPage')),
  page('/classes/:id/live', () => import('./live/LivePage')),
  page('/classes/:id/joining', () => import('./classes/joining/JoiningPage')),
  page('/classes/:id/groups', () => import('./classes/groups/GroupsPage')),
  page('/join/:token', () => import('./classes/joining/JoinPage')),
  page('/classes/:id/held', () => import('./classes/held/HeldPage')),
  page('/classes/:id/readings/:sourceId', () => import('./classes/reading/ReadingPage')),
  page('/notifications', () => import('./notifications/NotificationsPage')),
  page('/account', () => import('./account/YourAccountPage')),
  page('/people', () => import('./account/PeoplePage')),
];

/** Resolves when the code of the page at an address is there, or did not come. */
export async function fetchPage(pathname: string): Promise<void> {
  await PAGES.find(({ path }) => matchPath(path, pathname))
    ?.Page.fetchCode()
    .catch(() => undefined);
}
