using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Core.Projects;
using Gesamt.Core.Stages;
using NodaTime;

namespace Gesamt.Core.Routines;

/// <summary>One time a cause came true.</summary>
/// <param name="At">What offsets are counted from.</param>
/// <param name="After">What was recorded after this instant can stop the step.</param>
/// <param name="Known">When it became known: a step counted back from it that lay before this never had its chance.</param>
/// <param name="Fact">The fact behind it, where there is one.</param>
public sealed record CauseAt(Instant At, Instant After, Instant Known, Fact? Fact);

/// <summary>When the causes of steps came true in a project.</summary>
public static class Causes
{
    public static IReadOnlyList<CauseAt> Of(Case project, Cause cause, string? dateName = null) =>
        cause switch
        {
            // where it waited for the owner to read the answers, its follow-ups are counted from then
            Cause.InquiryCame => project.History.Any<Happening.InquiryRead>(read => read.FollowUp)
                ? From<Happening.InquiryRead>(project)
                : From<Happening.InquiryCame>(project),
            Cause.ProposalSent => From<Happening.ProposalSent>(project),
            Cause.ProposalOpened => FirstOpened(project),
            // the last day on which it can be chosen
            Cause.ProposalRunsOut =>
            [
                .. project
                    .History.Of<Happening.ProposalSent>()
                    .Select(sent => new CauseAt(
                        project.Calendar.At(sent.What.ValidUntil + Calendar.StudioCalendar.DefaultTime),
                        sent.Recorded,
                        sent.Recorded,
                        sent.Fact
                    )),
            ],
            // an amendment has its own letters
            Cause.ContractSent => From<Happening.ContractSent>(project, sent => sent.Amends is null),
            Cause.ContractSigned => ContractState.Amendments(project.History) is var amendments
                ? From<Happening.ContractSigned>(
                    project,
                    signed => signed.Signer == Signer.Client && !amendments.Contains(signed.Contract)
                )
                : [],
            Cause.PaymentReceived => From<Happening.PaymentReceived>(project),
            Cause.MeetingHeld => From<Happening.MeetingHeld>(project),
            Cause.FormReturned => From<Happening.FormReturned>(project),
            Cause.Approved => From<Happening.Approved>(project),
            Cause.Ended => project.End is { } end ? [new(end.Happened, end.Recorded, end.Recorded, end.Fact)] : [],
            Cause.HandedOver => From<Happening.HandedOver>(project),
            Cause.InvoiceDue =>
            [
                .. project
                    .History.Of<Happening.InvoiceIssued>()
                    .Select(issued => new CauseAt(
                        project.Calendar.At(issued.What.Due + Calendar.StudioCalendar.DefaultTime),
                        issued.Recorded,
                        issued.Recorded,
                        issued.Fact
                    )),
            ],
            Cause.Booked => Booking.Win(project) is { } won
                ? [new(won.At, won.By.Recorded, won.By.Recorded, won.By)]
                : [],
            Cause.NamedDate => (dateName is null ? project.MainDate : project.DateNamed(dateName)) is { } date
                ?
                [
                    new(
                        project.Calendar.At(date),
                        Instant.MinValue,
                        KnownSince(project, dateName ?? project.Kind.MainDate),
                        null
                    ),
                ]
                : [],
            _ => [],
        };

    /// <summary>Whether a routine that begins with a cause begins now. What the owner typed in, and kinds whose answers are read first, wait for a word.</summary>
    /// <remarks>What had happened before a project was taken over from a table begins nothing.</remarks>
    public static bool Begins(Case project, Cause cause) =>
        Of(project, cause)
            .Any(one => project.History.Last<Happening.Imported>() is not { } imported || one.Known > imported.Recorded)
        && (
            cause != Cause.InquiryCame
            || project.History.Any<Happening.InquiryRead>(read => read.FollowUp)
            || project.Kind.FollowUps == FollowUps.AtOnce
                && project.History.Last<Happening.InquiryCame>() is { Fact.By: Actor.Client }
                && !project.History.Any<Happening.InquiryRead>()
        );

    /// <summary>Whether a cause is something that happened, not a date and not a part of the routine itself.</summary>
    public static bool IsFact(Cause cause) =>
        cause
            is not (
                Cause.RunBegun
                or Cause.PreviousStep
                or Cause.NamedDate
                or Cause.InvoiceDue
                or Cause.ProposalRunsOut
            );

    private static IReadOnlyList<CauseAt> From<T>(Case project, Func<T, bool>? where = null)
        where T : Happening =>
        [
            .. project
                .History.Of<T>()
                .Where(seen => where is null || where(seen.What))
                .Select(seen => new CauseAt(seen.Happened, seen.Recorded, seen.Recorded, seen.Fact)),
        ];

    /// <summary>Each version once, when it was opened first.</summary>
    private static IReadOnlyList<CauseAt> FirstOpened(Case project) =>
        [
            .. project
                .History.Of<Happening.ProposalOpened>()
                .DistinctBy(opened => opened.What.Version)
                .Select(seen => new CauseAt(seen.Happened, seen.Recorded, seen.Recorded, seen.Fact)),
        ];

    private static Instant KnownSince(Case project, string date) =>
        project.History.Last<Happening.DateSet>(set => set.Name == date)?.Recorded ?? Instant.MinValue;
}
