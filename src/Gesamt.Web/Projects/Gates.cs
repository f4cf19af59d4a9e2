using Gesamt.Core.Amounts;
using Gesamt.Core.Calendar;
using Gesamt.Core.Contracts;
using Gesamt.Core.Facts;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Stages;
using Gesamt.Store.Projects;
using Gesamt.Web.Hosting;
using Gesamt.Web.Words;

namespace Gesamt.Web.Projects;

/// <summary>The five gates with their evidence in words.</summary>
public static class Gates
{
    /// <summary>The gates of a project with what closed them, or what is missing.</summary>
    public static IReadOnlyList<GateDto> Of(Desk desk, ProjectFile file, LineRows rows)
    {
        var readings = GateRule.Read(file.Case);
        var present = readings.FirstOrDefault(gate => !gate.IsClosed)?.Gate;
        return [.. readings.Select(gate => Of(desk, file, rows, gate, gate.Gate == present && file.Case.End is null))];
    }

    private static GateDto Of(Desk desk, ProjectFile file, LineRows rows, GateReading gate, bool present)
    {
        var (evidence, detail) = gate switch
        {
            { Waived: true } => ("Waived", Day(desk, gate)),
            { IsClosed: false } => ("", ""),
            _ => Evidence(desk, file, rows, gate),
        };
        return new(
            gate.Gate,
            file.Case.Kind.NameOf(gate.Gate),
            gate.IsClosed,
            present,
            evidence,
            detail,
            [.. gate.Lacks.Select(lack => Words(lack, file))],
            [
                .. MilestoneRule
                    .Of(file.Case)
                    .Where(one => one.Milestone.Gate == gate.Gate)
                    .Select(one => new MilestoneDto(
                        one.Milestone.Name,
                        one.ReachedAt is { } at ? desk.Short(desk.Calendar.DateOf(at)) : null
                    )),
            ]
        );
    }

    private static (string, string) Evidence(Desk desk, ProjectFile file, LineRows rows, GateReading gate)
    {
        var (history, day) = (file.History, Day(desk, gate));
        var price = AgreedPrice.Of(history);
        return gate.Gate switch
        {
            Gate.Lead => (
                history.FitAt is not null ? $"Fit, {day}" : $"Taken on, {day}",
                string.Join(
                    ", ",
                    new[]
                    {
                        file.Row.Source is { } source ? $"from {source}" : null,
                        file.Row.Campaign,
                    }.OfType<string>()
                )
            ),
            Gate.Proposal when history.Last<Happening.ProposalAccepted>() is { } accepted => (
                $"Chosen {day}, {MoneyText.Of(accepted.What.Agreed)}",
                $"version {rows.Versions[accepted.What.Version].Number}"
            ),
            Gate.Proposal => ($"Agreed {day}, {MoneyText.Of(price!.Agreed)}", "agreed outside"),
            Gate.Contract => (
                $"Signed {day} by both",
                ContractState.Standing(history) is { } standing && rows.Versions[standing] is var contract
                    ? $"version {contract.Number}, SHA-256 {contract.Hash[..8]}"
                    : ""
            ),
            Gate.Payment => (
                $"{MoneyText.Of(Payments.InForce(history).Where(payment => payment.Happened <= gate.ClosedAt).Select(payment => payment.What.Amount).Sum(price?.Agreed.Currency ?? desk.Currency))} in, {day}",
                price is { Agreed.Minor: > 0 }
                    ? $"{100m * price.DueOnBooking.Minor / price.Agreed.Minor:0} % of the price"
                    : ""
            ),
            Gate.Delivery => ($"Done {day}", "handed over, approved and paid"),
            _ => ("", ""),
        };
    }

    private static string Day(Desk desk, GateReading gate) =>
        DateWords.Short(desk.Calendar.DateOf(gate.ClosedAt!.Value), desk.Today);

    private static string Words(Lack lack, ProjectFile file) =>
        lack switch
        {
            Lack.Fit => "your yes",
            Lack.Details => string.Join(
                ", ",
                file.Case.Kind.Demands.Where(detail =>
                    !file.History.Any<Happening.DetailKnown>(known => known.Detail == detail)
                )
            ),
            Lack.Acceptance => "their choice",
            Lack.ClientSignature => "their signature",
            Lack.OwnerSignature => "your signature",
            Lack.Price => "a price",
            Lack.BookingPayment => AgreedPrice.Of(file.History) is { } price
                ? $"{MoneyText.Of(price.DueOnBooking)} on booking"
                : "the booking payment",
            Lack.Handover => "handover",
            Lack.Approval => "approval",
            Lack.ClosingSteps => "the closing steps",
            Lack.Balance => AgreedPrice.Of(file.History) is { } agreed
                ? MoneyText.Of(
                    agreed.Agreed
                        - Core.Invoicing.Owed.Credited(file.History, agreed.Agreed.Currency)
                        - Payments.TotalOfPrice(file.History, agreed.Agreed.Currency)
                )
                : "payment",
            _ => "",
        };
}
