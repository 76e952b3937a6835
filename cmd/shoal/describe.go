package main

import (
	"encoding/json"
	"fmt"
	"text/tabwriter"

	"github.com/spf13/cobra"
	"github.com/swaggest/jsonschema-go"

	"shoal/internal/effect"
	"shoal/internal/project"
	"shoal/internal/server"
)

func effectsCommand() *cobra.Command {
	var asJSON bool
	c := &cobra.Command{
		Use: "effects", Short: "List every effect and parameter", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			list := []effect.Info{}
			for _, k := range effect.Kinds() {
				list = append(list, k.Info)
			}
			if asJSON {
				e := json.NewEncoder(c.OutOrStdout())
				e.SetIndent("", "  ")
				return e.Encode(list)
			}
			w := tabwriter.NewWriter(c.OutOrStdout(), 0, 4, 2, ' ', 0)
			for _, k := range list {
				fmt.Fprintf(w, "%s (%s): %s\n", k.ID, k.Family, k.Says)
				for _, p := range k.Params {
					fmt.Fprintf(w, "  %s\t%g to %g %s\tdefault %g\t%s\n", p.Name, p.Min, p.Max, p.Unit, p.Default, p.Says)
				}
			}
			return w.Flush()
		},
	}
	c.Flags().BoolVar(&asJSON, "json", false, "as JSON")
	return c
}

func openapiCommand() *cobra.Command {
	return &cobra.Command{
		Use: "openapi", Short: "Print the description of the API (OpenAPI 3.1)", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			b, err := server.OpenAPI()
			if err != nil {
				return err
			}
			_, err = fmt.Fprintln(c.OutOrStdout(), string(b))
			return err
		},
	}
}

func schemaCommand() *cobra.Command {
	return &cobra.Command{
		Use: "schema", Short: "Print the JSON Schema of a bundle's project.json", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			r := jsonschema.Reflector{}
			s, err := r.Reflect(project.Project{})
			if err != nil {
				return err
			}
			title, version := "Shoal project", fmt.Sprintf("Format version %d of project.json in a bundle.", project.Version)
			s.Title, s.Description = &title, &version
			b, err := json.MarshalIndent(s, "", "  ")
			if err != nil {
				return err
			}
			_, err = fmt.Fprintln(c.OutOrStdout(), string(b))
			return err
		},
	}
}
