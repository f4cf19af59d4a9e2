import type { Cause, LateStart, SpanUnit, StepDoes } from "../../api/schema";

/** What a step or a routine can hang on, as it is chosen. */
export const causes: Record<Cause, string> = {
	RunBegun: "its own beginning",
	PreviousStep: "the step before",
	InquiryCame: "the inquiry",
	ProposalSent: "a proposal sent",
	ProposalOpened: "a proposal opened",
	ProposalRunsOut: "the last day of a proposal",
	ContractSent: "a contract sent",
	ContractSigned: "the client's signature",
	Booked: "booking",
	InvoiceDue: "the day an invoice is due",
	PaymentReceived: "a payment",
	MeetingHeld: "a meeting held",
	FormReturned: "a form returned",
	HandedOver: "the handover",
	Approved: "the approval",
	Ended: "an ending without a job",
	NamedDate: "a date",
};

export const units: Record<SpanUnit, string> = {
	Minutes: "minutes",
	Hours: "hours",
	Days: "days",
	BusinessDays: "business days",
	Weeks: "weeks",
	Months: "months",
	Years: "years",
};

export const acts: Record<StepDoes, string> = {
	Letter: "sends a letter",
	Form: "puts a form to the client",
	Times: "offers times for a meeting",
	Invoice: "sends the next agreed invoice",
	Tasks: "makes the tasks of a list",
	OpenPart: "opens a part of the client page",
	LabelOn: "puts a label on",
	LabelOff: "takes a label off",
	FollowOn: "proposes a follow-on project",
	EndAsQuiet: "proposes to end it as gone quiet",
	Hook: "calls a web hook",
	TellMe: "tells me something",
};

export const late: Record<LateStart, string> = {
	Skip: "is skipped",
	AtOnce: "is done at once",
	Ask: "is asked about",
};
