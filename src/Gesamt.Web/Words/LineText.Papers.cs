using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Facts;
using Gesamt.Core.Texts;

namespace Gesamt.Web.Words;

/// <inheritdoc cref="LineText"/>
public static partial class LineText
{
    /// <summary>Briefs, proposals, contracts, the handover.</summary>
    private static LineWords? Papers(Fact fact, LineRows rows) =>
        fact.What switch
        {
            Happening.BriefPut => new(EntrySort.Papers, EntryFrom.Done, $"Brief put to {rows.Client}"),
            Happening.BriefTakenBack => new(EntrySort.Papers, EntryFrom.Done, "Brief taken back"),
            Happening.BriefApproved approved => new(
                EntrySort.Papers,
                EntryFrom.Client,
                $"{rows.Client} approved the brief",
                $"SHA-256 {approved.Hash[..8]}"
            ),
            Happening.BriefRemarked remarked => new(
                EntrySort.Papers,
                EntryFrom.Client,
                $"{rows.Client} remarks on the brief",
                $"“{ShortText.Of(rows.Notes[remarked.Words].Text)}”",
                new(OpensWhat.Note, remarked.Words.Value)
            ),
            Happening.TestimonialPut => new(
                EntrySort.Papers,
                EntryFrom.Done,
                $"Words to be quoted put to {rows.Client}"
            ),
            Happening.TestimonialTakenBack => new(EntrySort.Papers, EntryFrom.Done, "Words to be quoted taken back"),
            Happening.TestimonialApproved approved => new(
                EntrySort.Papers,
                EntryFrom.Client,
                $"{rows.Client} approved words to quote",
                $"SHA-256 {rows.Versions[approved.Words].Hash[..8]}"
            ),
            Happening.TestimonialDeclined => new(
                EntrySort.Papers,
                EntryFrom.Client,
                $"{rows.Client} would rather not be quoted"
            ),
            Happening.LeaveGiven given => new(
                EntrySort.Papers,
                EntryFrom.Client,
                $"{rows.Client} gave leave to {LeaveWords(given.To)}"
            ),
            Happening.LeaveRefused refused => new(
                EntrySort.Papers,
                EntryFrom.Client,
                $"{rows.Client} gave no leave to {LeaveWords(refused.To)}"
            ),
            Happening.LeaveRevoked revoked => new(
                EntrySort.Papers,
                EntryFrom.Client,
                $"{rows.Client} took back the leave to {LeaveWords(revoked.To)}"
            ),
            Happening.ProposalSent sent => new(
                EntrySort.Papers,
                EntryFrom.Done,
                $"Proposal, version {rows.Versions[sent.Version].Number}, is out",
                $"valid until {DateWords.Long(sent.ValidUntil)}",
                new(OpensWhat.Proposal, sent.Version.Value)
            ),
            Happening.ProposalOpened => new(EntrySort.Papers, EntryFrom.Client, $"{rows.Client} opened the proposal"),
            Happening.ProposalWithdrawn withdrawn => new(
                EntrySort.Papers,
                EntryFrom.Done,
                $"Proposal, version {rows.Versions[withdrawn.Version].Number}, withdrawn"
            ),
            Happening.ProposalDeclined declined => new(
                EntrySort.Papers,
                EntryFrom.Client,
                $"{rows.Client} declined the proposal",
                declined.Words is { } why ? $"“{rows.Notes[why].Text}”" : "",
                declined.Words is { } words ? new(OpensWhat.Note, words.Value) : null
            ),
            Happening.ChangeAsked asked => new(
                EntrySort.Papers,
                EntryFrom.Client,
                asked.Sort switch
                {
                    AskSort.Question => $"{rows.Client} asks about the proposal",
                    AskSort.Objection => $"{rows.Client} objects to the proposal",
                    _ => $"{rows.Client} asks for a change",
                },
                $"“{rows.Notes[asked.Words].Text}”",
                new(OpensWhat.Note, asked.Words.Value)
            ),
            Happening.ProposalAccepted accepted => new(
                EntrySort.Papers,
                EntryFrom.Client,
                $"{rows.Client} chose, {MoneyText.Of(accepted.Agreed)}",
                $"{MoneyText.Of(accepted.DueOnBooking)} due on booking",
                new(OpensWhat.Proposal, accepted.Version.Value)
            ),
            Happening.PriceAgreed agreed => new(
                EntrySort.Papers,
                EntryFrom.Done,
                $"Price agreed, {MoneyText.Of(agreed.Agreed)}"
            ),
            Happening.RateSheetSent => new(EntrySort.Papers, EntryFrom.Done, $"Rate sheet put to {rows.Client}"),
            Happening.RateSheetTakenBack => new(EntrySort.Papers, EntryFrom.Done, "Rate sheet taken back"),
            Happening.RateSheetTicked ticked => new(
                EntrySort.Papers,
                EntryFrom.Client,
                $"{rows.Client} ticked on the rate sheet",
                rows.RateSheets.GetValueOrDefault(ticked.Sheet, "")
            ),
            Happening.ContractSignedInPart part => new(
                EntrySort.Papers,
                EntryFrom.Client,
                $"{rows.NameOf(part.Contract, part.By)} signed {rows.ContractWords(part.Contract)}",
                "somebody else is still to sign",
                new(OpensWhat.Contract, part.Contract.Value)
            ),
            Happening.ContractAsked asked => new(
                EntrySort.Papers,
                EntryFrom.Client,
                asked.Sort switch
                {
                    AskSort.Question => $"{rows.Client} asks about {rows.ContractWords(asked.Contract)}",
                    AskSort.Objection => $"{rows.Client} objects to {rows.ContractWords(asked.Contract)}",
                    _ => $"{rows.Client} asks for a change of {rows.ContractWords(asked.Contract)}",
                },
                $"“{rows.Notes[asked.Words].Text}”",
                new(OpensWhat.Note, asked.Words.Value)
            ),
            Happening.ContractDeclined declined => new(
                EntrySort.Papers,
                EntryFrom.Client,
                $"{rows.Client} declined to sign {rows.ContractWords(declined.Contract)}",
                $"“{rows.Notes[declined.Words].Text}”",
                new(OpensWhat.Note, declined.Words.Value)
            ),
            Happening.PriceAmended amended => new(
                EntrySort.Papers,
                EntryFrom.Done,
                $"The price is {MoneyText.Of(amended.Agreed)} from now on",
                "by an amendment",
                new(OpensWhat.Proposal, amended.Version.Value)
            ),
            Happening.ContractSigned signed => new(
                EntrySort.Papers,
                signed.Signer == Signer.Client ? EntryFrom.Client : EntryFrom.Done,
                $"{(signed.Signer == Signer.Client ? rows.SignedBy(signed.Contract) : rows.Owner)} signed {rows.ContractWords(signed.Contract)}",
                "",
                new(OpensWhat.Contract, signed.Contract.Value)
            ),
            Happening.ContractVoided voided => new(
                EntrySort.Papers,
                EntryFrom.Done,
                rows.Amendments.Contains(voided.Contract) ? "Amendment voided" : "Contract voided",
                voided.Words is { } why ? rows.Notes[why].Text : "",
                new(OpensWhat.Contract, voided.Contract.Value)
            ),
            Happening.HandedOver => new(EntrySort.Papers, EntryFrom.Done, "Handed over"),
            Happening.Approved => new(EntrySort.Papers, EntryFrom.Client, $"{rows.Client} approved the work"),
            _ => null,
        };

    /// <summary>Invoices and payments.</summary>
    private static LineWords? Money(Fact fact, LineRows rows) =>
        fact.What switch
        {
            Happening.InvoiceIssued issued => new(
                EntrySort.Money,
                EntryFrom.Done,
                $"Invoice {rows.Invoices[issued.Invoice].Number}, {MoneyText.Of(issued.Amount)}",
                $"due {DateWords.Long(issued.Due)}",
                new(OpensWhat.Invoice, issued.Invoice.Value)
            ),
            Happening.PaymentReceived paid => new(
                EntrySort.Money,
                EntryFrom.Client,
                $"{MoneyText.Of(paid.Amount)} received",
                MeansOf(rows.Payments[paid.Payment], rows),
                new(OpensWhat.Payment, paid.Payment.Value)
            ),
            Happening.RecurringBegun begun => new(
                EntrySort.Money,
                EntryFrom.Done,
                $"A recurring invoice was begun, {MoneyText.Of(begun.Amount)} {EveryWords.Of(begun.Every)}"
            ),
            Happening.RecurringChanged changed => new(
                EntrySort.Money,
                EntryFrom.Done,
                $"The recurring invoice is {MoneyText.Of(changed.Amount)} from now on"
            ),
            Happening.RecurringStopped => new(EntrySort.Money, EntryFrom.Done, "The recurring invoice comes no more"),
            Happening.MeansKept kept => new(
                EntrySort.Money,
                EntryFrom.Client,
                $"{rows.Client} agreed to be charged",
                $"recurring invoices, by {rows.Means[kept.Means]}"
            ),
            Happening.ConsentTakenBack back => new(
                EntrySort.Money,
                fact.By == Actor.Client ? EntryFrom.Client : EntryFrom.Done,
                fact.By == Actor.Client
                    ? $"{rows.Client} took back the consent to be charged"
                    : "Nothing is charged any more",
                rows.Means[back.Means]
            ),
            Happening.ChargeRefused refused => new(
                EntrySort.Money,
                EntryFrom.Client,
                $"{MoneyText.Of(refused.Amount)} could not be charged, invoice {rows.Invoices[refused.Invoice].Number}",
                refused.Again is { } again
                    ? $"tried again on {DateWords.Long(again)}"
                    : "it is not tried again: write to them",
                new(OpensWhat.Invoice, refused.Invoice.Value)
            ),
            Happening.InvoiceCredited credited => new(
                EntrySort.Money,
                EntryFrom.Done,
                $"Credit note {rows.Invoices[credited.Note].Number}, {MoneyText.Of(credited.Amount)}",
                $"takes back invoice {rows.Invoices[credited.Invoice].Number}",
                new(OpensWhat.Invoice, credited.Note.Value)
            ),
            Happening.PaymentVoided => new(
                EntrySort.Money,
                EntryFrom.Done,
                "A payment was recorded by mistake and taken back",
                rows.Missed.Length > 0 ? $"missed meanwhile and not sent: {rows.Missed}" : ""
            ),
            Happening.PaymentChargedBack back => new(
                EntrySort.Money,
                EntryFrom.Client,
                $"{MoneyText.Of(rows.AmountOf(back.Payment))} charged back",
                "the bank took the payment back",
                new(OpensWhat.Payment, back.Payment.Value)
            ),
            Happening.PaymentRefunded refunded => new(
                EntrySort.Money,
                EntryFrom.Done,
                $"{MoneyText.Of(refunded.Amount)} given back",
                refunded.Note is { } note ? $"with credit note {rows.Invoices[note].Number}" : "",
                new(OpensWhat.Payment, refunded.Payment.Value)
            ),
            Happening.RefundRefused refused => new(
                EntrySort.Money,
                EntryFrom.Client,
                $"The provider did not give {MoneyText.Of(refused.Amount)} back",
                "give it back by another way",
                new(OpensWhat.Payment, refused.Payment.Value)
            ),
            Happening.InvoiceAsked asked => new(
                EntrySort.Money,
                EntryFrom.Client,
                asked.Sort == AskSort.Objection
                    ? $"{rows.Client} objects to invoice {rows.Invoices[asked.Invoice].Number}"
                    : $"{rows.Client} asks about invoice {rows.Invoices[asked.Invoice].Number}",
                $"“{rows.Notes[asked.Words].Text}”",
                new(OpensWhat.Note, asked.Words.Value)
            ),
            Happening.SaidToBePaid said => new(
                EntrySort.Money,
                EntryFrom.Client,
                $"{rows.Client} says that invoice {rows.Invoices[said.Invoice].Number} is paid",
                "the money has not been seen yet",
                new(OpensWhat.Invoice, said.Invoice.Value)
            ),
            _ => null,
        };

    private static string LeaveWords(LeaveTo to) => to == LeaveTo.Quote ? "quote" : "show the work";
}
