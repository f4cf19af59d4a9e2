import { useState } from "react";
import { answer, api } from "../../api/client";
import type { KindPageDto, ServiceDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";
import { Section } from "./Section";

const empty: ServiceDto = {
	id: 0,
	title: "",
	detail: "",
	unit: "",
	unitPrice: "0",
	tax: "",
};

/** The price list of a kind. */
export function Services({ kind }: { kind: KindPageDto }) {
	const [services, setServices] = useState(kind.services);
	const act = useAct();
	const change = (at: number, part: Partial<ServiceDto>) =>
		setServices(
			services.map((one, i) => (i === at ? { ...one, ...part } : one)),
		);
	const wrong = (at: number, field: string) =>
		act.refusal?.of(`services[${at}].${field}`);
	return (
		<Section
			id="services"
			title="Services"
			under={`${kind.services.length}, prices before tax`}
			open
		>
			<ul className="grid gap-2">
				{services.map((service, i) => (
					<li
						key={i}
						aria-label={service.title || "New service"}
						className="grid gap-2 border-b border-hair pb-2 md:grid-cols-[1.3fr_1.7fr_80px_100px_70px_auto]"
					>
						<TextField
							label="Service"
							value={service.title}
							wrong={wrong(i, "title")}
							onChange={(e) => change(i, { title: e.target.value })}
						/>
						<TextField
							label="Detail"
							value={service.detail}
							onChange={(e) => change(i, { detail: e.target.value })}
						/>
						<TextField
							label="Unit"
							value={service.unit}
							onChange={(e) => change(i, { unit: e.target.value })}
						/>
						<TextField
							label="Price"
							inputMode="decimal"
							className="text-right"
							value={service.unitPrice}
							wrong={wrong(i, "unitPrice")}
							onChange={(e) => change(i, { unitPrice: e.target.value })}
						/>
						<TextField
							label="Tax %"
							inputMode="decimal"
							className="text-right"
							value={service.tax}
							wrong={wrong(i, "tax")}
							onChange={(e) => change(i, { tax: e.target.value })}
						/>
						<Button
							kind="word"
							size="small"
							className="self-end pb-2"
							onClick={() => setServices(services.filter((_, at) => at !== i))}
						>
							take out<span className="sr-only">: {service.title}</span>
						</Button>
					</li>
				))}
			</ul>
			<Refused of={act.refusal} />
			<div className="flex gap-2 pt-3">
				<Button onClick={() => setServices([...services, empty])}>
					Add a service
				</Button>
				<Button
					kind="go"
					disabled={act.busy || services === kind.services}
					onClick={() =>
						act.run(() =>
							answer(
								api.PUT("/api/kinds/{id}/services", {
									params: { path: { id: kind.id } },
									body: {
										edition: kind.edition,
										services,
									},
								}),
							),
						)
					}
				>
					Keep the services
				</Button>
			</div>
		</Section>
	);
}
