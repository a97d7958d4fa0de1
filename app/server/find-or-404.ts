import "server-only";
import { notFound } from "next/navigation";
import { isOfCode } from "@/store";

/** Runs a read; an id that names nothing gives the 404 page. */
export async function findOr404<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (isOfCode(error, "not-found")) notFound();
    throw error;
  }
}
