using Gesamt.Core;
using Gesamt.Store.Model;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using NodaTime;

namespace Gesamt.Store;

/// <summary>The database of one studio, in one SQLite file.</summary>
public sealed class GesamtDb(DbContextOptions<GesamtDb> options) : DbContext(options)
{
    public DbSet<StudioRow> Studio => Set<StudioRow>();
    public DbSet<KindRow> Kinds => Set<KindRow>();
    public DbSet<FormRow> Forms => Set<FormRow>();
    public DbSet<ServiceRow> Services => Set<ServiceRow>();
    public DbSet<LetterTemplateRow> LetterTemplates => Set<LetterTemplateRow>();
    public DbSet<ContractTemplateRow> ContractTemplates => Set<ContractTemplateRow>();
    public DbSet<RoutineRow> Routines => Set<RoutineRow>();
    public DbSet<TaskListRow> TaskLists => Set<TaskListRow>();
    public DbSet<RunSheetTemplateRow> RunSheetTemplates => Set<RunSheetTemplateRow>();
    public DbSet<RunSheetRow> RunSheets => Set<RunSheetRow>();
    public DbSet<ListRow> Lists => Set<ListRow>();
    public DbSet<EntryRow> Entries => Set<EntryRow>();
    public DbSet<ListChangeRow> ListChanges => Set<ListChangeRow>();
    public DbSet<PersonRow> People => Set<PersonRow>();
    public DbSet<ProjectPersonRow> ProjectPeople => Set<ProjectPersonRow>();
    public DbSet<JoinRow> Joins => Set<JoinRow>();
    public DbSet<ErasureRow> Erasures => Set<ErasureRow>();
    public DbSet<LabelRow> Labels => Set<LabelRow>();
    public DbSet<SlipRow> Slips => Set<SlipRow>();
    public DbSet<UploadRow> Uploads => Set<UploadRow>();
    public DbSet<DetailRow> Details => Set<DetailRow>();
    public DbSet<DetailDoubtRow> DetailDoubts => Set<DetailDoubtRow>();
    public DbSet<BriefRow> Briefs => Set<BriefRow>();
    public DbSet<ImportRow> Imports => Set<ImportRow>();
    public DbSet<ImportedRow> Imported => Set<ImportedRow>();
    public DbSet<ImportPartRow> ImportParts => Set<ImportPartRow>();
    public DbSet<MeetingKindRow> MeetingKinds => Set<MeetingKindRow>();
    public DbSet<MeetingRow> Meetings => Set<MeetingRow>();
    public DbSet<CalendarRow> Calendars => Set<CalendarRow>();
    public DbSet<BusyRow> Busy => Set<BusyRow>();
    public DbSet<AppointmentRow> Appointments => Set<AppointmentRow>();

    /// <summary>Real projects. Rehearsals count nowhere: whoever means them too says <see cref="AllProjects"/>.</summary>
    public IQueryable<ProjectRow> Projects => AllProjects.Where(p => !p.Rehearsal);

    /// <summary>The real ones to be counted: said like this the count is taken from an index, while what a row says of itself takes the row.</summary>
    public IQueryable<ProjectRow> ProjectsToCount => AllProjects.Where(p => !RehearsalIds.Contains(p.Id));

    /// <summary>The few that are rehearsals.</summary>
    public IQueryable<ProjectRow> Rehearsals => AllProjects.Where(p => p.Rehearsal);

    /// <summary>For rows that belong to a project: whether it is among these few is looked up in a list, where asking it takes its row.</summary>
    public IQueryable<ProjectId> RehearsalIds => Rehearsals.Select(p => p.Id);

    /// <summary>Payments that count. What was written down by mistake never came, and what a rehearsal got neither.</summary>
    public IQueryable<PaymentRow> RealPayments =>
        Payments.AsNoTracking().Where(p => (p.GoneAt == null || p.ChargedBack) && !RehearsalIds.Contains(p.ProjectId));

    /// <summary>Costs that count: what was removed does not, nor what a rehearsal cost.</summary>
    public IQueryable<CostRow> RealCosts =>
        Costs
            .AsNoTracking()
            .Where(c => !c.Removed && (c.ProjectId == null || !RehearsalIds.Contains(c.ProjectId.Value)));

    public DbSet<ProjectRow> AllProjects => Set<ProjectRow>();
    public DbSet<FactRow> Facts => Set<FactRow>();
    public DbSet<AnswersRow> Answers => Set<AnswersRow>();
    public DbSet<NoteRow> Notes => Set<NoteRow>();
    public DbSet<TaskRow> Tasks => Set<TaskRow>();
    public DbSet<RunRow> Runs => Set<RunRow>();
    public DbSet<PlannedStepRow> PlannedSteps => Set<PlannedStepRow>();
    public DbSet<RequestRow> Requests => Set<RequestRow>();
    public DbSet<LetterRow> Letters => Set<LetterRow>();
    public DbSet<OutboxRow> Outbox => Set<OutboxRow>();
    public DbSet<LetterFileRow> LetterFiles => Set<LetterFileRow>();
    public DbSet<TemplateFileRow> TemplateFiles => Set<TemplateFileRow>();
    public DbSet<MailAccountRow> MailAccounts => Set<MailAccountRow>();
    public DbSet<HookRow> Hooks => Set<HookRow>();
    public DbSet<HookCallRow> HookCalls => Set<HookCallRow>();
    public DbSet<ApiKeyRow> ApiKeys => Set<ApiKeyRow>();
    public DbSet<FormDraftRow> FormDrafts => Set<FormDraftRow>();
    public DbSet<OfferDraftRow> OfferDrafts => Set<OfferDraftRow>();
    public DbSet<OfferTemplateRow> OfferTemplates => Set<OfferTemplateRow>();
    public DbSet<PaperFileRow> PaperFiles => Set<PaperFileRow>();
    public DbSet<SignCodeRow> SignCodes => Set<SignCodeRow>();
    public DbSet<RateSheetRow> RateSheets => Set<RateSheetRow>();
    public DbSet<VersionRow> Versions => Set<VersionRow>();
    public DbSet<SignatureRow> Signatures => Set<SignatureRow>();
    public DbSet<PaperRow> Papers => Set<PaperRow>();
    public DbSet<LinkRow> Links => Set<LinkRow>();
    public DbSet<InvoiceRow> Invoices => Set<InvoiceRow>();
    public DbSet<PaymentRow> Payments => Set<PaymentRow>();
    public DbSet<RefundRow> Refunds => Set<RefundRow>();
    public DbSet<BillDraftRow> BillDrafts => Set<BillDraftRow>();
    public DbSet<RecurringRow> Recurring => Set<RecurringRow>();
    public DbSet<KeptMeansRow> KeptMeans => Set<KeptMeansRow>();
    public DbSet<HoursRow> Hours => Set<HoursRow>();
    public DbSet<ClockRow> Clocks => Set<ClockRow>();
    public DbSet<QuoteRow> Quotes => Set<QuoteRow>();
    public DbSet<AccessRow> Access => Set<AccessRow>();
    public DbSet<PraiseRow> Praise => Set<PraiseRow>();
    public DbSet<ChecklistRow> Checklists => Set<ChecklistRow>();
    public DbSet<CostRow> Costs => Set<CostRow>();
    public DbSet<AccountRow> Accounts => Set<AccountRow>();
    public DbSet<TransferRow> Transfers => Set<TransferRow>();
    public DbSet<StayRow> Stays => Set<StayRow>();
    public DbSet<GoalRow> Goals => Set<GoalRow>();
    public DbSet<IncomeRow> Incomes => Set<IncomeRow>();
    public DbSet<RecurringCostRow> RecurringCosts => Set<RecurringCostRow>();
    public DbSet<ClosedYearRow> ClosedYears => Set<ClosedYearRow>();
    public DbSet<BankFileRow> BankFiles => Set<BankFileRow>();
    public DbSet<BankColumnsRow> BankColumns => Set<BankColumnsRow>();
    public DbSet<BankLineRow> BankLines => Set<BankLineRow>();
    public DbSet<BankBookingRow> BankBookings => Set<BankBookingRow>();
    public DbSet<FileRow> Files => Set<FileRow>();
    public DbSet<ReviewRow> Reviews => Set<ReviewRow>();
    public DbSet<SavedViewRow> SavedViews => Set<SavedViewRow>();
    public DbSet<CheckoutRow> Checkouts => Set<CheckoutRow>();
    public DbSet<UpkeepRow> Upkeep => Set<UpkeepRow>();
    public DbSet<SessionRow> Sessions => Set<SessionRow>();

    /// <summary>Whether words stand in a text, whatever their case and accents. In queries only: SQLite is told how by <see cref="Sqlite"/>.</summary>
    public static bool Holds(string? text, string words) =>
        throw new NotSupportedException($"“{words}” is looked for by the database.");

    protected override void ConfigureConventions(ModelConfigurationBuilder conventions)
    {
        conventions.Properties<Instant>().HaveConversion<InstantTicks>();
        conventions.Properties<LocalDate>().HaveConversion<IsoDate>();
        conventions.Properties<LocalTime>().HaveConversion<IsoTime>();
        conventions.Properties<decimal>().HaveConversion<Millionths>();
        conventions.Properties<Enum>().HaveConversion<string>();
        Id<ProjectId>(conventions);
        Id<PersonId>(conventions);
        Id<KindId>(conventions);
        Id<FactId>(conventions);
        Id<AnswersId>(conventions);
        Id<LetterId>(conventions);
        Id<VersionId>(conventions);
        Id<InvoiceId>(conventions);
        Id<PaymentId>(conventions);
        Id<RefundId>(conventions);
        Id<HoursId>(conventions);
        Id<CostId>(conventions);
        Id<AccountId>(conventions);
        Id<TransferId>(conventions);
        Id<IncomeId>(conventions);
        Id<RecurringCostId>(conventions);
        Id<GoalId>(conventions);
        Id<QuoteId>(conventions);
        Id<PraiseId>(conventions);
        Id<AccessId>(conventions);
        Id<ListId>(conventions);
        Id<EntryId>(conventions);
        Id<ListChangeId>(conventions);
        Id<BankLineId>(conventions);
        Id<RecurringId>(conventions);
        Id<KeptMeansId>(conventions);
        Id<TaskId>(conventions);
        Id<NoteId>(conventions);
        Id<RunId>(conventions);
        Id<FileId>(conventions);
        Id<ReviewId>(conventions);
        Id<MeetingId>(conventions);
    }

    protected override void OnModelCreating(ModelBuilder model)
    {
        model.HasDbFunction(() => Holds(default, default!)).HasName("holds");
        Studios(model);
        Projects_(model);
        Lists_(model);
        Letters_(model);
        Papers_(model);
        Files_(model);
        People_(model);
        Meetings_(model);
        Money(model);
        Spent(model);
        Books(model);
        Bank(model);
        House(model);
    }

    private static void House(ModelBuilder model)
    {
        model.Entity<UpkeepRow>(e =>
        {
            e.ToTable("Upkeep", t => t.HasCheckConstraint("OneUpkeep", "Id = 1"));
            e.Property(u => u.Id).ValueGeneratedNever();
        });
        model.Entity<SessionRow>().HasIndex(s => s.Name).IsUnique();
    }

    private static void Studios(ModelBuilder model)
    {
        model.Entity<StudioRow>(e =>
        {
            e.ToTable("Studio", t => t.HasCheckConstraint("OneStudio", "Id = 1"));
            e.Property(s => s.Id).ValueGeneratedNever();
            e.Ignore(s => s.MailDomain);
        });
        Key<KindRow, KindId>(model, k => k.Id).HasIndex(k => k.Key).IsUnique();
        model.Entity<FormRow>().HasIndex(f => f.Slug).IsUnique();
        model.Entity<LetterTemplateRow>(e =>
        {
            e.HasIndex(l => l.Key, "SharedLetter").IsUnique().HasFilter("KindId IS NULL");
            e.HasIndex(l => new { l.KindId, l.Key }).IsUnique();
        });
        model.Entity<TaskListRow>().HasIndex(l => l.Key).IsUnique();
        model.Entity<RunSheetTemplateRow>().HasIndex(t => t.Key).IsUnique();
        model.Entity<RoutineRow>().HasIndex(r => new { r.KindId, r.Key }).IsUnique();
        model.Entity<ContractTemplateRow>().HasIndex(c => c.KindId);
        model.Entity<ServiceRow>(e =>
        {
            e.HasIndex(s => s.KindId);
            e.Property(s => s.KindId).HasColumnName("ForKind");
        });
    }

    private static void Lists_(ModelBuilder model)
    {
        var list = OfProject(Key<ListRow, ListId>(model, l => l.Id));
        list.ToTable("Lists");
        list.HasIndex(l => l.PublicId).IsUnique();
        var entry = Key<EntryRow, EntryId>(model, e => e.Id);
        entry.ToTable("ListEntries");
        entry.HasIndex(e => new { e.ListId, e.Key }).IsUnique();
        // few entries are steps of a plan
        entry.HasIndex(e => e.NextStep).HasFilter("NextStep IS NOT NULL");
        entry.HasOne<ListRow>().WithMany().HasForeignKey(e => e.ListId).OnDelete(DeleteBehavior.Restrict);
        var change = Key<ListChangeRow, ListChangeId>(model, c => c.Id);
        change.ToTable("ListChanges");
        change.HasOne<ListRow>().WithMany().HasForeignKey(c => c.ListId).OnDelete(DeleteBehavior.Restrict);
        change.HasOne<EntryRow>().WithMany().HasForeignKey(c => c.EntryId).OnDelete(DeleteBehavior.Restrict);
    }

    private static void Projects_(ModelBuilder model)
    {
        var project = Key<ProjectRow, ProjectId>(model, p => p.Id);
        project.ToTable("Projects");
        project.HasIndex(p => p.Code).IsUnique();
        project.HasIndex(p => p.Source);
        project.HasIndex(p => p.Campaign).HasFilter("Campaign IS NOT NULL");
        project.HasIndex(p => p.Id).HasFilter("Rehearsal");
        project.HasOne(p => p.Kind).WithMany().HasForeignKey(p => p.KindId).OnDelete(DeleteBehavior.Restrict);
        project.HasOne(p => p.Client).WithMany().HasForeignKey(p => p.ClientId).OnDelete(DeleteBehavior.Restrict);
        project.OwnsOne(
            p => p.Standing,
            s =>
            {
                s.HasIndex(x => x.ValidUntil);
                s.HasIndex(x => x.InvoiceAt);
                s.HasIndex(x => new { x.Ended, x.Stage });
                // few of all projects are on the table, fewer of the ended ones
                s.HasIndex(x => x.Ended).HasFilter("Standing_OnTable");
                // with what tells how those ended that were never booked, so that they are counted without their rows
                s.HasIndex(x => new
                {
                    x.BookedAt,
                    x.Ended,
                    x.Stage,
                });
                s.HasIndex(x => x.BeganAt);
            }
        );
        project.Navigation(p => p.Standing).IsRequired();
        project.OwnsOne(
            p => p.Pinned,
            pinned =>
            {
                pinned.ToTable("PinnedRules");
                pinned.WithOwner().HasForeignKey("ProjectId");
                pinned.HasKey("ProjectId");
            }
        );
        project.Navigation(p => p.Pinned).IsRequired();
        OfProject(Key<FactRow, FactId>(model, f => f.Id)).HasIndex(f => new { f.ProjectId, f.Recorded });
        model.Entity<FactRow>().HasIndex(f => f.Recorded);
        // most of what happens the studio does, or the clock
        model.Entity<FactRow>().HasIndex(f => f.Recorded, "ByClients").HasFilter("By = 'Client'");
        // the list of all signed papers asks which of them are void
        model.Entity<FactRow>().HasIndex(f => f.Id, "VoidedContracts").HasFilter("Kind = 'ContractVoided'");
        model.Entity<FactRow>().ToTable(t => t.HasCheckConstraint("NotAhead", "Happened <= Recorded"));
        OfProject(Key<AnswersRow, AnswersId>(model, a => a.Id));
        OfProject(Key<NoteRow, NoteId>(model, n => n.Id)).HasIndex(n => n.PinnedAt).HasFilter("PinnedAt IS NOT NULL");
        OfProject(Key<PraiseRow, PraiseId>(model, p => p.Id));
        OfProject(Key<AccessRow, AccessId>(model, a => a.Id)).ToTable("Access");
        OfProject(model.Entity<RunSheetRow>()).HasIndex(r => r.ProjectId).IsUnique();
        var task = OfProject(Key<TaskRow, TaskId>(model, t => t.Id));
        task.HasIndex(t => new { t.DoneAt, t.Due });
        task.HasIndex(t => t.WorkOn).HasFilter("WorkOn IS NOT NULL");
        task.HasIndex(t => t.PublicId).IsUnique();
        // a routine runs once per project
        OfProject(Key<RunRow, RunId>(model, r => r.Id)).HasIndex(r => new { r.ProjectId, r.Key }).IsUnique();
        OfProject(model.Entity<PlannedStepRow>())
            .HasIndex(s => new
            {
                s.RunId,
                s.Step,
                s.Occurrence,
            })
            .IsUnique();
        model.Entity<PlannedStepRow>().HasIndex(s => new { s.State, s.Due });
        model.Entity<PlannedStepRow>().HasIndex(s => s.Due).HasFilter("State = 'Held'");
        model.Entity<RequestRow>().HasKey(r => r.Key);
        model.Entity<RequestRow>().HasIndex(r => r.At);
        model.Entity<RunRow>().HasIndex(r => r.Id).HasFilter("Offered");
        // the list of routines counts them by it
        model
            .Entity<RunRow>()
            .HasIndex(r => new
            {
                r.KindId,
                r.Key,
                r.State,
                r.ProjectId,
            });
        var stay = OfProject(model.Entity<StayRow>());
        stay.HasIndex(s => new { s.ProjectId, s.Gate }).IsUnique();
        // all that is counted of the inquiries of some years
        stay.HasIndex(s => new
        {
            s.BeganAt,
            s.Gate,
            s.Days,
            s.Left,
            s.Since,
        });
        var checklist = OfProject(model.Entity<ChecklistRow>());
        checklist.HasIndex(c => new { c.ProjectId, c.FormId }).IsUnique();
        OfProject(model.Entity<FormDraftRow>()).HasIndex(d => new { d.ProjectId, d.FormId }).IsUnique();
    }

    private static void Letters_(ModelBuilder model)
    {
        OfProject(Key<LetterRow, LetterId>(model, l => l.Id));
        model.Entity<LetterRow>().HasIndex(l => l.MessageId).IsUnique();
        model.Entity<LetterRow>().HasIndex(l => new { l.State, l.ProjectId });
        // few of all letters wait for an OK, and few were refused
        model.Entity<LetterRow>().HasIndex(l => l.At).HasFilter("State = 'Held'");
        model.Entity<LetterRow>().HasIndex(l => l.Problem).HasFilter("Problem IS NOT NULL");
        OfProject(model.Entity<OutboxRow>()).HasIndex(o => o.Key).IsUnique();
        model.Entity<OutboxRow>().HasIndex(o => o.MessageId).IsUnique();
        model.Entity<OutboxRow>().HasIndex(o => new { o.State, o.NotBefore });
        model
            .Entity<LetterRow>()
            .HasMany(l => l.Files)
            .WithOne()
            .HasForeignKey(f => f.LetterId)
            .OnDelete(DeleteBehavior.Cascade);
        model
            .Entity<LetterTemplateRow>()
            .HasMany(t => t.Files)
            .WithOne()
            .HasForeignKey(f => f.TemplateId)
            .OnDelete(DeleteBehavior.Cascade);
        model.Entity<LetterTemplateRow>().HasIndex(t => t.Number).IsUnique();
        model.Entity<MailAccountRow>(e =>
        {
            e.ToTable(t => t.HasCheckConstraint("OneAccount", "Id = 1"));
            e.Property(a => a.Id).ValueGeneratedNever();
        });
        OfProject(model.Entity<HookCallRow>()).HasIndex(c => c.Key).IsUnique();
        model
            .Entity<HookCallRow>()
            .HasOne<HookRow>()
            .WithMany()
            .HasForeignKey(c => c.HookId)
            .OnDelete(DeleteBehavior.Cascade);
        model.Entity<HookCallRow>().HasIndex(c => new { c.State, c.NotBefore });
        model.Entity<HookRow>().HasIndex(h => h.Name).IsUnique();
        model.Entity<ApiKeyRow>().HasIndex(k => k.Hash).IsUnique();
    }

    private static void Papers_(ModelBuilder model)
    {
        var paper = OfProject(model.Entity<PaperRow>());
        paper.HasIndex(p => new { p.VersionId, p.Signatures }).IsUnique();
        // the signed ones of a year are counted without their rows
        paper.HasIndex(p => new
        {
            p.VersionId,
            p.Signatures,
            p.At,
        });
        paper.HasIndex(p => p.InvoiceId).IsUnique();
        OfProject(model.Entity<OfferDraftRow>()).HasIndex(d => d.ProjectId).IsUnique();
        OfProject(model.Entity<RateSheetRow>()).HasIndex(r => r.ProjectId);
        model.Entity<OfferTemplateRow>().HasIndex(t => t.KindId);
        model.Entity<PaperFileRow>().HasIndex(f => f.Hash).IsUnique();
        model.Entity<SignCodeRow>().HasIndex(c => new { c.VersionId, c.PersonId }).IsUnique();
        OfProject(Key<VersionRow, VersionId>(model, v => v.Id))
            .HasIndex(v => new
            {
                v.ProjectId,
                v.Sort,
                v.Number,
            })
            .IsUnique();
        // one signature of each side per version, however often the button is pressed
        model.Entity<SignatureRow>(e =>
        {
            e.HasIndex(s => new { s.VersionId, s.Signer }, "OneOfASide").IsUnique().HasFilter("PersonId IS NULL");
            e.HasIndex(s => new { s.VersionId, s.PersonId }).IsUnique();
        });
        OfProject(model.Entity<LinkRow>()).HasIndex(l => l.PublicId).IsUnique();
        model.Entity<LinkRow>().HasIndex(l => new { l.ProjectId, l.PersonId }).IsUnique();
    }

    private static void Files_(ModelBuilder model)
    {
        var file = OfProject(Key<FileRow, FileId>(model, f => f.Id));
        file.HasIndex(f => f.PublicId).IsUnique();
        file.HasIndex(f => f.Hash);
        OfProject(Key<ReviewRow, ReviewId>(model, r => r.Id)).HasIndex(r => r.PublicId).IsUnique();
        model.Entity<SavedViewRow>().HasIndex(v => v.Name).IsUnique();
    }

    private static void People_(ModelBuilder model)
    {
        var person = Key<PersonRow, PersonId>(model, p => p.Id);
        person.HasIndex(p => p.Mail);
        // nearly nobody was; an index of all would be taken for the list of those who were not
        person.HasIndex(p => p.MergedInto).HasFilter("MergedInto IS NOT NULL");
        person.HasIndex(p => p.CardUid);
        person.HasIndex(p => p.PlainName);
        // as they are listed, with what tells who is, so that they are counted without their rows
        person.HasIndex(p => new
        {
            p.Name,
            p.MergedInto,
            p.RemovedAt,
        });
        var part = OfProject(model.Entity<ProjectPersonRow>(), p => p.People);
        part.HasIndex(p => new
            {
                p.ProjectId,
                p.PersonId,
                p.Part,
            })
            .IsUnique();
        part.HasOne(p => p.Person).WithMany().HasForeignKey(p => p.PersonId).OnDelete(DeleteBehavior.Restrict);
        model.Entity<JoinRow>().HasIndex(j => new { j.FromId, j.ToId });
        OfProject(model.Entity<ErasureRow>()).HasIndex(e => e.ProjectId).IsUnique();
        model.Entity<LabelRow>().HasIndex(l => l.Label);
        model.Entity<LabelRow>().HasIndex(l => l.ProjectId);
        model.Entity<LabelRow>().HasIndex(l => l.PersonId);
        model.Entity<SlipRow>().HasIndex(s => new { s.GoneAt, s.ProjectId });
        model.Entity<UploadRow>().HasIndex(u => u.PublicId).IsUnique();
        model.Entity<UploadRow>().HasIndex(u => new { u.Taken, u.At });
        OfProject(model.Entity<DetailRow>()).HasIndex(d => new { d.ProjectId, d.Name }).IsUnique();
        OfProject(model.Entity<DetailDoubtRow>()).HasIndex(d => new { d.ProjectId, d.GoneAt });
        OfProject(model.Entity<BriefRow>()).HasIndex(b => new { b.ProjectId, b.Part }).IsUnique();
        model.Entity<ImportedRow>().HasIndex(i => i.ImportId);
        model.Entity<ImportPartRow>().HasIndex(p => p.ImportId);
    }

    private static void Meetings_(ModelBuilder model)
    {
        model.Entity<MeetingKindRow>().Ignore(k => k.Rule);
        var meeting = OfProject(Key<MeetingRow, MeetingId>(model, m => m.Id));
        meeting.HasIndex(m => m.PublicId).IsUnique();
        meeting.HasIndex(m => new { m.Cancelled, m.Start });
        meeting.HasIndex(m => m.RemindAt);
        meeting.ToTable(t => t.HasCheckConstraint("EndsLater", "\"End\" > Start"));
        model.Entity<AppointmentRow>().HasIndex(a => new { a.Removed, a.Start });
        model.Entity<AppointmentRow>().ToTable(t => t.HasCheckConstraint("LastsAWhile", "\"End\" > Start"));
        model.Entity<BusyRow>().HasIndex(b => new { b.CalendarId, b.Start });
    }

    private static void Money(ModelBuilder model)
    {
        var invoice = OfProject(Key<InvoiceRow, InvoiceId>(model, i => i.Id));
        invoice
            .HasIndex(i => new
            {
                i.Sort,
                i.Series,
                i.Year,
                i.Sequence,
            })
            .IsUnique();
        invoice.HasIndex(i => i.PublicId).IsUnique();
        // the books ask which currencies there are; a rehearsal's papers have no year
        invoice.HasIndex(i => new { i.Currency, i.Year });
        // few of all papers are owed
        invoice.HasIndex(i => new { i.Sort, i.Due }).HasFilter("OwedMinor > 0");
        invoice.HasIndex(i => new { i.Currency, i.Due }).HasFilter("OwedMinor > 0 AND Year > 0");
        // few of all papers take another back
        invoice.HasIndex(i => i.Credits).HasFilter("Credits IS NOT NULL");
        // the list of all invoices asks in which months there are any; a rehearsal's have no year
        invoice.HasIndex(i => i.IssuedOn).HasFilter("Year > 0");
        invoice
            .HasIndex(i => new
            {
                i.ProposalId,
                i.Instalment,
                i.Again,
            })
            .IsUnique();
        invoice.ToTable(t => t.HasCheckConstraint("Positive", "TotalMinor > 0"));
        var payment = OfProject(Key<PaymentRow, PaymentId>(model, p => p.Id));
        payment.HasIndex(p => p.Reference).IsUnique();
        payment.HasIndex(p => p.At);
        // few are ever taken back
        payment.HasIndex(p => p.GoneAt).HasFilter("GoneAt IS NOT NULL");
        payment.ToTable(t => t.HasCheckConstraint("Positive", "AmountMinor > 0"));
        // few come again by themselves
        invoice.HasIndex(i => new { i.Recurring, i.Occurrence }).IsUnique().HasFilter("Recurring IS NOT NULL");
        var checkout = OfProject(model.Entity<CheckoutRow>());
        checkout.HasIndex(c => c.Session).IsUnique();
        checkout.HasIndex(c => new { c.InvoiceId, c.Attempt }).IsUnique().HasFilter("Attempt IS NOT NULL");
        var recurring = OfProject(Key<RecurringRow, RecurringId>(model, r => r.Id));
        recurring.HasIndex(r => r.Next);
        recurring.Ignore(r => r.Recurrence);
        OfProject(Key<KeptMeansRow, KeptMeansId>(model, k => k.Id));
        OfProject(model.Entity<BillDraftRow>()).HasIndex(d => d.ProjectId).IsUnique();
        var refund = OfProject(Key<RefundRow, RefundId>(model, r => r.Id));
        refund.HasIndex(r => r.At);
        refund.HasIndex(r => r.Key).IsUnique();
        refund.HasIndex(r => r.PaymentId);
        refund.ToTable(t => t.HasCheckConstraint("Positive", "AmountMinor > 0"));
    }

    private static void Spent(ModelBuilder model)
    {
        var hours = OfProject(Key<HoursRow, HoursId>(model, h => h.Id));
        // with what they are summed up by
        hours.HasIndex(h => new
        {
            h.ProjectId,
            h.Removed,
            h.Minutes,
        });
        hours.ToTable(t => t.HasCheckConstraint("WithinADay", "Minutes BETWEEN 1 AND 1440"));
        hours.HasOne<InvoiceRow>().WithMany().HasForeignKey(h => h.InvoiceId).OnDelete(DeleteBehavior.Restrict);
        var clock = OfProject(model.Entity<ClockRow>());
        clock.HasOne<TaskRow>().WithMany().HasForeignKey(c => c.TaskId).OnDelete(DeleteBehavior.Restrict);
        clock.HasIndex(c => c.IsRunning).IsUnique().HasFilter("IsRunning");
        clock.ToTable(t => t.HasCheckConstraint("RunsOrStopped", "IsRunning = (StoppedAt IS NULL)"));
        var cost = OfProject(Key<CostRow, CostId>(model, c => c.Id));
        cost.ToTable(t => t.HasCheckConstraint("Positive", "GrossMinor > 0"));
        cost.HasIndex(c => c.On);
        // the books ask which currencies there are
        cost.HasIndex(c => new { c.Currency, c.Removed });
        // what books itself does so once
        cost.HasIndex(c => new { c.Recurring, c.Occurrence }).IsUnique();
        var quote = OfProject(Key<QuoteRow, QuoteId>(model, q => q.Id));
        quote.ToTable(t => t.HasCheckConstraint("Positive", "GrossMinor > 0"));
        quote.HasOne<CostRow>().WithMany().HasForeignKey(q => q.CostId).OnDelete(DeleteBehavior.Restrict);
        cost.HasOne<InvoiceRow>().WithMany().HasForeignKey(c => c.InvoiceId).OnDelete(DeleteBehavior.Restrict);
    }

    private static void Books(ModelBuilder model)
    {
        Key<AccountRow, AccountId>(model, a => a.Id);
        var transfer = Key<TransferRow, TransferId>(model, t => t.Id);
        transfer.HasIndex(t => t.On);
        transfer.HasOne<AccountRow>().WithMany().HasForeignKey(t => t.FromId).OnDelete(DeleteBehavior.Restrict);
        transfer.HasOne<AccountRow>().WithMany().HasForeignKey(t => t.ToId).OnDelete(DeleteBehavior.Restrict);
        transfer.ToTable(t =>
        {
            t.HasCheckConstraint("Positive", "LeftMinor > 0 AND ArrivedMinor > 0");
            t.HasCheckConstraint("TwoAccounts", "FromId <> ToId");
        });
        var income = Key<IncomeRow, IncomeId>(model, i => i.Id);
        income.HasIndex(i => i.On);
        income.ToTable(t => t.HasCheckConstraint("Positive", "GrossMinor > 0"));
        var recurring = OfProject(Key<RecurringCostRow, RecurringCostId>(model, r => r.Id));
        recurring.HasIndex(r => r.Next);
        recurring.Ignore(r => r.Recurrence);
        recurring.ToTable(t => t.HasCheckConstraint("Positive", "GrossMinor > 0"));
        Key<GoalRow, GoalId>(model, g => g.Id).HasIndex(g => g.Year);
        model.Entity<ClosedYearRow>().HasKey(y => y.Year);
        model.Entity<ClosedYearRow>().Property(y => y.Year).ValueGeneratedNever();
    }

    private static void Bank(ModelBuilder model)
    {
        model.Entity<BankColumnsRow>().HasIndex(c => c.Headings).IsUnique();
        var line = Key<BankLineRow, BankLineId>(model, l => l.Id);
        // the same line twice is no second line, whatever file it comes in
        line.HasIndex(l => l.Key).IsUnique();
        line.HasIndex(l => new { l.State, l.On });
        line.HasOne<BankFileRow>().WithMany().HasForeignKey(l => l.FileId).OnDelete(DeleteBehavior.Restrict);
        line.ToTable(t => t.HasCheckConstraint("NotNothing", "AmountMinor <> 0"));
        line.HasIndex(l => l.CostId).IsUnique().HasFilter("CostId IS NOT NULL");
        var booking = model.Entity<BankBookingRow>();
        booking.HasIndex(b => b.PaymentId).IsUnique();
        booking.HasOne<BankLineRow>().WithMany().HasForeignKey(b => b.LineId).OnDelete(DeleteBehavior.Restrict);
        booking.HasOne<PaymentRow>().WithMany().HasForeignKey(b => b.PaymentId).OnDelete(DeleteBehavior.Restrict);
    }

    private static EntityTypeBuilder<T> Key<T, TId>(
        ModelBuilder model,
        System.Linq.Expressions.Expression<Func<T, TId>> id
    )
        where T : class
    {
        var entity = model.Entity<T>();
        entity.Property(id).ValueGeneratedOnAdd().UseAutoincrement();
        return entity;
    }

    private static EntityTypeBuilder<T> OfProject<T>(
        EntityTypeBuilder<T> entity,
        System.Linq.Expressions.Expression<Func<ProjectRow, IEnumerable<T>?>>? many = null
    )
        where T : class
    {
        entity.HasOne<ProjectRow>().WithMany(many).HasForeignKey("ProjectId").OnDelete(DeleteBehavior.Restrict);
        return entity;
    }

    private static void Id<T>(ModelConfigurationBuilder conventions)
        where T : struct, IId<T> => conventions.Properties<T>().HaveConversion<IdNumber<T>>();

    internal sealed class IdNumber<T>() : ValueConverter<T, long>(id => id.Value, value => Made<T>(value))
        where T : struct, IId<T>;

    // an expression tree cannot call a static member of an interface itself
    internal static T Made<T>(long value)
        where T : struct, IId<T> => T.From(value);

    internal sealed class InstantTicks()
        : ValueConverter<Instant, long>(v => v.ToUnixTimeTicks(), v => Instant.FromUnixTimeTicks(v));

    internal sealed class IsoDate()
        : ValueConverter<LocalDate, string>(
            v => NodaTime.Text.LocalDatePattern.Iso.Format(v),
            v => NodaTime.Text.LocalDatePattern.Iso.Parse(v).Value
        );

    internal sealed class IsoTime()
        : ValueConverter<LocalTime, string>(
            v => NodaTime.Text.LocalTimePattern.GeneralIso.Format(v),
            v => NodaTime.Text.LocalTimePattern.GeneralIso.Parse(v).Value
        );

    internal sealed class Millionths()
        : ValueConverter<decimal, long>(v => (long)(v * 1_000_000m), v => v / 1_000_000m);
}
