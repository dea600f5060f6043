import { BenchPage } from "@/bench/bench";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return <BenchPage key={id} id={id} />;
}
