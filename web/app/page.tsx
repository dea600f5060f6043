import { JobsPage } from "@/shop/jobs";

export default function Page() {
  return <JobsPage />;
}
