import { useLayoutEffect, useRef } from "react";
import type { Refusal } from "../api/refusal";
import { Alert } from "./Alert";

/** What was refused, as far as no field says it itself. Stands behind the fields of its form, and leads to the first that is wrong. */
export function Refused({ of: refusal }: { of: Refusal | undefined }) {
	const place = useRef<HTMLDivElement>(null);
	// in the moment the words appear, so that nobody reads them and is elsewhere
	useLayoutEffect(() => {
		if (refusal?.hasFields)
			place.current
				?.closest("form, [data-sends]")
				?.querySelector<HTMLElement>('[aria-invalid="true"]')
				?.focus();
	}, [refusal]);
	const rest = refusal?.rest;
	return (
		<div ref={place} hidden={!rest}>
			{rest && <Alert>{rest}</Alert>}
		</div>
	);
}
