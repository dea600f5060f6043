import { listJobs } from "@/server/jobs";
import { served } from "@/server/served";
import { JobsPage } from "@/shop/jobs";

export default async function Page() {
  return <JobsPage here="heights" first={await served(listJobs())} />;
}
