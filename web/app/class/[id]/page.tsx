import { notFound } from "next/navigation";
import { Problem } from "@oaken/core/problem";
import { openClass } from "@/server/class";
import { ClassPage } from "@/shop/class/class-page";

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const wall = await openClass(id).catch((e) => {
    if (e instanceof Problem) return null;
    throw e;
  });
  if (!wall) notFound();
  return <ClassPage first={wall} />;
}
