namespace Gesamt.Core;

// Typed numbers of rows: a letter's number can never be passed for a project's. They stay inside; clients' addresses carry random names instead.

/// <summary>What all typed ids share, so that storing and reading them is said once.</summary>
public interface IId<TSelf>
    where TSelf : struct, IId<TSelf>
{
    long Value { get; }
    static abstract TSelf From(long value);
}

public readonly record struct ProjectId(long Value) : IId<ProjectId>
{
    public static ProjectId From(long value) => new(value);
}

public readonly record struct PersonId(long Value) : IId<PersonId>
{
    public static PersonId From(long value) => new(value);
}

public readonly record struct KindId(long Value) : IId<KindId>
{
    public static KindId From(long value) => new(value);
}

public readonly record struct FactId(long Value) : IId<FactId>
{
    public static FactId From(long value) => new(value);
}

public readonly record struct AnswersId(long Value) : IId<AnswersId>
{
    public static AnswersId From(long value) => new(value);
}

public readonly record struct LetterId(long Value) : IId<LetterId>
{
    public static LetterId From(long value) => new(value);
}

public readonly record struct VersionId(long Value) : IId<VersionId>
{
    public static VersionId From(long value) => new(value);
}

public readonly record struct InvoiceId(long Value) : IId<InvoiceId>
{
    public static InvoiceId From(long value) => new(value);
}

public readonly record struct PaymentId(long Value) : IId<PaymentId>
{
    public static PaymentId From(long value) => new(value);
}

public readonly record struct RefundId(long Value) : IId<RefundId>
{
    public static RefundId From(long value) => new(value);
}

public readonly record struct BankLineId(long Value) : IId<BankLineId>
{
    public static BankLineId From(long value) => new(value);
}

public readonly record struct RecurringId(long Value) : IId<RecurringId>
{
    public static RecurringId From(long value) => new(value);
}

public readonly record struct KeptMeansId(long Value) : IId<KeptMeansId>
{
    public static KeptMeansId From(long value) => new(value);
}

public readonly record struct TaskId(long Value) : IId<TaskId>
{
    public static TaskId From(long value) => new(value);
}

public readonly record struct NoteId(long Value) : IId<NoteId>
{
    public static NoteId From(long value) => new(value);
}

public readonly record struct FileId(long Value) : IId<FileId>
{
    public static FileId From(long value) => new(value);
}

public readonly record struct ReviewId(long Value) : IId<ReviewId>
{
    public static ReviewId From(long value) => new(value);
}

public readonly record struct RunId(long Value) : IId<RunId>
{
    public static RunId From(long value) => new(value);
}

public readonly record struct MeetingId(long Value) : IId<MeetingId>
{
    public static MeetingId From(long value) => new(value);
}

public readonly record struct HoursId(long Value) : IId<HoursId>
{
    public static HoursId From(long value) => new(value);
}

public readonly record struct CostId(long Value) : IId<CostId>
{
    public static CostId From(long value) => new(value);
}

public readonly record struct QuoteId(long Value) : IId<QuoteId>
{
    public static QuoteId From(long value) => new(value);
}

public readonly record struct PraiseId(long Value) : IId<PraiseId>
{
    public static PraiseId From(long value) => new(value);
}

public readonly record struct ListId(long Value) : IId<ListId>
{
    public static ListId From(long value) => new(value);
}

public readonly record struct EntryId(long Value) : IId<EntryId>
{
    public static EntryId From(long value) => new(value);
}

public readonly record struct ListChangeId(long Value) : IId<ListChangeId>
{
    public static ListChangeId From(long value) => new(value);
}

public readonly record struct AccessId(long Value) : IId<AccessId>
{
    public static AccessId From(long value) => new(value);
}

public readonly record struct AccountId(long Value) : IId<AccountId>
{
    public static AccountId From(long value) => new(value);
}

public readonly record struct TransferId(long Value) : IId<TransferId>
{
    public static TransferId From(long value) => new(value);
}

public readonly record struct IncomeId(long Value) : IId<IncomeId>
{
    public static IncomeId From(long value) => new(value);
}

public readonly record struct RecurringCostId(long Value) : IId<RecurringCostId>
{
    public static RecurringCostId From(long value) => new(value);
}

public readonly record struct GoalId(long Value) : IId<GoalId>
{
    public static GoalId From(long value) => new(value);
}
