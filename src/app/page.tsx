import { Desk } from '../features/desk/desk';
import { viewDesk } from '../server/usecases/view-desk';

export const dynamic = 'force-dynamic';
export const metadata = { title: 'Desk' };

export default async function Page() {
  return <Desk initial={viewDesk()} />;
}
