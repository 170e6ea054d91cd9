import { Desk } from '../features/desk/desk';
import { viewDesk } from '../server/usecases/view-desk';
import { storedPage } from './storage-page';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Desk' };

export default async function Page() {
  return storedPage(viewDesk, (desk) => <Desk initial={desk} />);
}
