import { Mark } from '../ui/mark';

export default function NotFound() {
  return (
    <main className="plain">
      <Mark client="" />
      <p className="say">There is nothing at this address; the project may have been removed.</p>
      <a className="lk act" href="/">
        Back to the desk
      </a>
    </main>
  );
}
