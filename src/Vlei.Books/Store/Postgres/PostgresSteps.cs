using Vlei.Core.Problems;

namespace Vlei.Books.Store.Postgres;

/// <summary>
/// Brings the tables of a server to those that this program knows. Each step is SQL that was written once and is never changed; the
/// owner of the schema takes it.
/// </summary>
internal static class PostgresSteps
{
    private const int Last = 1;

    /// <summary>Refuses tables of another step than this program's.</summary>
    public static void RefuseOther(int step, PostgresAddress address)
    {
        if (step > Last)
        {
            throw new ProblemException(
                ProblemKind.BadConfiguration, $"The store at {address} has version {step}; this vlei knows up to {Last}.",
                "Use the newer vlei that made it.");
        }

        if (step < Last)
        {
            throw new ProblemException(
                ProblemKind.BadConfiguration, $"The store at {address} was made by an earlier vlei.",
                $"Whoever owns the database brings it forward: vlei store init '{address.With(null)}'");
        }
    }

    /// <summary>Takes the steps that are missing, all or none; says how many that were.</summary>
    public static int BringForward(PostgresSession session)
    {
        var schema = session.Address.Schema;
        session.Begin(System.Data.IsolationLevel.ReadCommitted);
        _ = session.Query("SELECT pg_advisory_xact_lock(hashtext($1))::text", schema);
        var there = session.Query("SELECT 1::bigint FROM pg_catalog.pg_namespace WHERE nspname = $1", schema);
        if (!there.Next())
        {
            session.Execute($"CREATE SCHEMA {PostgresText.Quoted(schema)}");
        }

        var steps = session.Query(
            "SELECT 1::bigint FROM pg_catalog.pg_tables WHERE schemaname = $1 AND tablename = 'steps'", schema);
        var before = 0;
        if (steps.Next())
        {
            var last = session.Query("SELECT coalesce(max(step), 0)::bigint FROM steps");
            before = last.Next() ? last.Int(0) : 0;
        }

        for (var step = before + 1; step <= Last; step++)
        {
            session.Execute(StepText.Of("postgres", step));
        }

        session.Commit();
        return Math.Max(0, Last - before);
    }
}
