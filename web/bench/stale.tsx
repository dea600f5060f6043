"use client";
import { useState } from "react";
import { useRouter } from "next/navigation";
import { api } from "../ui/api.ts";
import { useBenchStore, useParts } from "./context.tsx";

/** Two windows on one job: this one was behind. Nothing is lost; the person chooses. */
export function Stale() {
  const { id, save } = useParts("id", "save");
  const store = useBenchStore();
  const router = useRouter();
  const [wrong, setWrong] = useState<string | null>(null);
  const asNew = async () => {
    try {
      const { whole } = store.getState();
      const made = await api<{ id: string }>("/api/jobs", {
        method: "POST",
        json: { document: { ...whole, name: `${whole.name}, mine` } },
      });
      store.setState({ save: { state: "saved", at: new Date() } });
      router.push(`/job/${made.id}`);
    } catch (e) {
      setWrong((e as Error).message);
    }
  };
  if (save.state !== "stale") return null;
  return (
    <div role="alert" className="flex items-center gap-3 border-b border-danger/40 bg-danger/5 px-4 py-2">
      <span className="flex-1">{wrong ?? save.message}</span>
      <button className="btn" onClick={() => void asNew()}>
        Keep mine as a new job
      </button>
      <button
        className="btn"
        onClick={() => {
          store.setState({ save: { state: "saved", at: null } });
          location.assign(`/job/${id}`);
        }}
      >
        Load the other
      </button>
    </div>
  );
}
